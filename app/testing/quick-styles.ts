/**
 * Queries by role ask for the style of every element and of all that it lies in, to leave out what nobody sees, and a document
 * made for tests looks through all rules each time. What they ask for, `display` and `visibility`, is told here by one look at
 * the rules of single classes, which is all that these are in what we draw, and what elements of one name are by themselves is
 * asked once; anything else is asked as before.
 */
/** Tests that need no page have none. */
const hasPage = typeof window !== 'undefined'

export const slow = hasPage ? window.getComputedStyle.bind(window) : (undefined as never)

type Told = 'display' | 'visibility'
const told: readonly string[] = ['display', 'visibility'] satisfies Told[]

let known = 0
let rules = new Map<string, Partial<Record<Told, string>>>()

/** What the rules of single classes say, looked through anew when there are more of them. */
function rulesNow(): typeof rules {
  const sheets = Array.from(document.styleSheets)
  const count = sheets.reduce((sum, { cssRules }) => sum + cssRules.length, 0)
  if (count === known) return rules
  known = count
  rules = new Map()
  for (const { cssRules } of sheets)
    for (const rule of Array.from(cssRules)) {
      const { selectorText = '', style } = rule as CSSStyleRule
      const name = /^\.([\w-]+)$/.exec(selectorText)?.[1]
      if (!name || !style) continue
      const { display, visibility } = style
      if (display || visibility)
        rules.set(name, { ...rules.get(name), ...(display ? { display } : {}), ...(visibility ? { visibility } : {}) })
    }
  return rules
}

/** What is said of an element itself, in its style or by its classes; nothing where neither says it. */
export function saidOf(element: Element, what: Told): string | undefined {
  const inline = (element as HTMLElement).style?.[what]
  if (inline) return inline
  const all = rulesNow()
  let said: string | undefined
  for (const name of Array.from(element.classList)) said = all.get(name)?.[what] ?? said
  return said
}

const ownDisplays = new Map<string, string>()

/** What an element of a name is where nothing is said of it: a block, a line's part, or a thing not shown. */
function ownDisplay({ localName, namespaceURI }: Element): string {
  let own = ownDisplays.get(localName)
  if (own === undefined) ownDisplays.set(localName, (own = slow(document.createElementNS(namespaceURI, localName)).display))
  return own
}

/** `display` is an element's own, `visibility` is that of what it lies in. */
function styleOf(element: Element, what: Told): string {
  if (what === 'display') return saidOf(element, what) ?? (element.hasAttribute('hidden') ? slow(element).display : ownDisplay(element))
  for (let one: Element | null = element; one; one = one.parentElement) {
    const said = saidOf(one, what)
    if (said) return said
  }
  return 'visible'
}

const nothing = { content: '', display: '', visibility: '', getPropertyValue: () => '' } as unknown as CSSStyleDeclaration

function quick(element: Element, pseudo?: string | null): CSSStyleDeclaration {
  if (pseudo) return nothing
  let whole: CSSStyleDeclaration | undefined
  const wholly = () => (whole ??= slow(element))
  return new Proxy({} as CSSStyleDeclaration, {
    get(_, key) {
      if (typeof key === 'string' && told.includes(key)) return styleOf(element, key as Told)
      if (key === 'getPropertyValue')
        return (name: string) => (told.includes(name) ? styleOf(element, name as Told) : wholly().getPropertyValue(name))
      const value = Reflect.get(wholly(), key) as unknown
      return typeof value === 'function' ? (value.bind(wholly()) as unknown) : value
    },
  })
}

if (hasPage) window.getComputedStyle = quick

/**
 * Queries by label and by name ask each control for its labels, and a document made for tests looks through all that it holds
 * for each of them. Here all labels are looked up together, and those of the control are taken.
 */
const kinds = ['Button', 'Input', 'Select', 'TextArea', 'Meter', 'Output', 'Progress'] as const

/** What each kind of control says of its labels by itself. */
export const slowly = new Map<string, (this: HTMLElement) => ArrayLike<Element> | null>()

if (typeof window !== 'undefined')
  for (const kind of kinds) {
    const { prototype } = window[`HTML${kind}Element`]
    slowly.set(kind.toLowerCase(), Object.getOwnPropertyDescriptor(prototype, 'labels')!.get!)
    Object.defineProperty(prototype, 'labels', {
      get(this: HTMLElement) {
        if (this instanceof HTMLInputElement && this.type === 'hidden') return null
        return Array.from(this.ownerDocument.getElementsByTagName('label')).filter(({ control }) => control === this)
      },
    })
  }

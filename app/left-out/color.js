/**
 * Stands for what the elements reckon colours with: wherever they do, ours gives the colour itself (`ui`, `ui/theme`), so each
 * stays as it is given.
 */
export default function Color(given) {
  const same = {
    alpha: () => same,
    darken: () => same,
    lighten: () => same,
    rgb: () => same,
    hex: () => given,
    string: () => given,
    toString: () => given,
  }
  return same
}

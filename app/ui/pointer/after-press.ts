/** Does something that takes long in a task of its own, so that what was pressed answers before it. */
export function afterPress(run: () => void): void {
  setTimeout(run, 0)
}

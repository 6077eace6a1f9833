export interface ShippedFile {
  readonly path: string
  readonly bytes: Uint8Array
  /** What it is to a person, where its path does not say so. */
  readonly name?: string
}

/** What leaves, and what is said with it. */
export interface Shipment {
  readonly files: ShippedFile[]
  /** What the form cannot say just so, and what was lowered or left out, in words for a person. */
  readonly notes: string[]
  /** Whether files had to be lowered to fit. */
  readonly isTooLoud: boolean
}

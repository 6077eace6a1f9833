/** The version that kits are written in; see upgrade.ts for how older ones are read. */
export const KIT_VERSION = 2

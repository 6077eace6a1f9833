/** What was given cannot be used; the message says why and what to do, in one line. */
export class InputFault extends Error {}

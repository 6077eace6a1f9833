/** Stands for zod's own: schemas of another kind, which nothing here asks for, weigh as much as one of our places. */
const none = () => undefined

export const createToJSONSchemaMethod = () => none
export const createStandardJSONSchemaMethod = () => none

/** In the place of what the app never asks zod for: it checks what it is sent, writes no JSON schema (the server does), and compiles none of its schemas. */
const none = () => {
  throw new Error('Invariant: the app makes no JSON schema and compiles none.');
};
export const createToJSONSchemaMethod = () => none;
export const createStandardJSONSchemaMethod = () => none;
export const toJSONSchema = none;
export const fromJSONSchema = none;
export const compile = none;
export const withParser = none;

/** In the place of zod's JSON Schema modules: the app checks what it is sent and writes no schema; the server does. */
const none = () => {
  throw new Error('Invariant: the app makes no JSON schema.');
};
export const createToJSONSchemaMethod = () => none;
export const createStandardJSONSchemaMethod = () => none;
export const toJSONSchema = none;
export const fromJSONSchema = none;

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { problemShape, sequenceDocument } from './problem';
import { soupDocument } from '../index';

test.each([
  ['soup', soupDocument],
  ['problem', problemShape],
  ['sequence', sequenceDocument],
])('the JSON Schema of a %s in docs/formats is the one that is checked with', (name, schema) => {
  const written = JSON.parse(readFileSync(path.join(__dirname, `../../../docs/formats/${name}.schema.json`), 'utf8')) as unknown;
  expect(written).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(schema, { io: 'input' }))));
});

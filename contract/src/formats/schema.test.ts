import { readFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { soupDocument } from '../index';

test('the JSON Schema in docs/formats is the one that is checked with', () => {
  const written = JSON.parse(readFileSync(path.join(__dirname, '../../../docs/formats/soup.schema.json'), 'utf8')) as unknown;
  expect(written).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(soupDocument, { io: 'input' }))));
});

import type { RuleVersionOnWire } from '@broth/contract';
import { currentRules, ruleBook } from '@broth/core';
import { ruleSet } from '@broth/core/packs';
import type { RuleBook, RuleSet, RulesInForce } from '@broth/core';
import { DEFAULT_PACK, RULE_PACKS } from '@broth/core/packs';

const pack = RULE_PACKS.find((one) => one.id === DEFAULT_PACK);
if (pack === undefined) throw new Error('no pack');
const set: RuleSet = ruleSet(pack, { packId: pack.id, changes: [], added: [] }, 1);

/** The default pack as a kitchen book carries it. */
export const ruleVersions = [{ since: 0, by: '', set }] as unknown as RuleVersionOnWire[];
const book = ruleBook([{ since: 0, by: '', set }]);
if (book === null) throw new Error('no rules');
export const rules: RuleBook = book;
export const rulesNow: RulesInForce = currentRules(book);

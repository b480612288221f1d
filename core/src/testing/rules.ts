import { RULE_PACKS } from '../packs';
import { rulesInForce } from '../safety/index';
import { ruleSet } from '../packs';
import type { KitchenRules, RuleBook, RulePack, RulesInForce } from '../safety/index';

export function packOf(packId: string): RulePack {
  const pack = RULE_PACKS.find((one) => one.id === packId);
  if (pack === undefined) throw new RangeError(`Invariant: there is a pack ${packId}`);
  return pack;
}

/** A pack's rules as a kitchen has them that changed nothing, or what it says. */
export function rulesOf(packId = 'us-fda-fc2022', changed: Partial<KitchenRules> = {}, version = 1): RulesInForce {
  return rulesInForce(ruleSet(packOf(packId), { packId, changes: [], added: [], ...changed }, version));
}

export function bookOf(packId = 'us-fda-fc2022', changed: Partial<KitchenRules> = {}): RuleBook {
  return [{ since: 0, by: 'lead', rules: rulesOf(packId, changed) }];
}

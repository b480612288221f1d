import { rule } from '@broth/contract';
import { kitchenRulesAnswer, packList, putRules } from '@broth/contract/record';
import { refuse } from '@broth/contract/refusals';
import type { KitchenRules, RulePack } from '@broth/core';
import { RULE_PACKS } from '@broth/core/packs';
import { z } from 'zod';
import type { Context } from '../context';
import { stationOf } from '../store/kitchenStore';
import { changeRules, packOf, ruleVersionsOf } from '../store/rules';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

/** What a change must be to be read: of a rule there is, of the same kind; a rule of the kitchen's own has an id nobody else has. */
function examine(rules: KitchenRules, pack: RulePack): void {
  const original = new Map(pack.rules.map((one) => [one.id, one]));
  const own = new Set(rules.added.map((one) => one.id));
  if (own.size < rules.added.length || rules.added.some((one) => original.has(one.id))) throw refuse('rule.idTaken');
  for (const { ruleId, instead } of rules.changes) {
    const was = original.get(ruleId) ?? rules.added.find((one) => one.id === ruleId);
    // A change of a rule of another pack waits for that pack.
    if (was !== undefined && instead !== null && (instead.id !== was.id || instead.step !== was.step)) throw refuse('rule.otherKind', { id: ruleId });
  }
}

export function ruleRoutes(api: Api, context: Context): void {
  api.get('/rule-packs', { schema: { summary: 'The rule packs that ship', response: { 200: packList } } }, () =>
    RULE_PACKS.map(({ id, version, name, place, rules }) => ({ id, version, name, place, rules: rules.length })),
  );
  api.get(
    '/rule-packs/:packId',
    { schema: { summary: 'The rules of a pack, each with its source', params: z.object({ packId: z.string() }), response: { 200: z.object({ rules: z.array(rule) }) } } },
    (request) => {
      const pack = packOf(request.params.packId);
      if (pack === null) throw refuse('rule.packUnknown', { id: request.params.packId });
      return { rules: z.array(rule).parse(pack.rules) };
    },
  );
  const answer = async (kitchenId: string) => {
    const { versions, rules, version } = await ruleVersionsOf(kitchenId);
    return kitchenRulesAnswer.parse({ versions, rules, version });
  };
  api.get(
    '/kitchens/:kitchenId/rules',
    { schema: { summary: "A kitchen's rules: its pack, what it changed, and every version", params: kitchenParams, response: { 200: kitchenRulesAnswer } } },
    async (request) => {
      await kitchenOr404(request.params.kitchenId);
      return answer(request.params.kitchenId);
    },
  );
  api.put(
    '/kitchens/:kitchenId/rules',
    { schema: { summary: 'Change the rules from now on: another pack, other figures, on or off', params: kitchenParams, body: putRules, response: { 200: kitchenRulesAnswer } } },
    async (request) => {
      const { kitchenId } = request.params;
      const { by, baseVersion } = request.body;
      await kitchenOr404(kitchenId);
      const rules = request.body.rules as KitchenRules;
      const { station } = await stationOf(kitchenId);
      if (station.people.find((person) => person.id === by)?.role !== 'lead') throw refuse('rule.leadOnly');
      const pack = packOf(rules.packId);
      if (pack === null) throw refuse('rule.packUnknown', { id: rules.packId });
      examine(rules, pack);
      const outcome = await changeRules(context.database, kitchenId, { rules, pack, by, at: new Date(context.now()), baseVersion });
      if (outcome === 'overtaken') throw refuse('rule.overtaken');
      return answer(kitchenId);
    },
  );
}

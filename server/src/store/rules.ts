import type { RuleVersionOnWire, ThermometerStanding } from '@broth/contract';
import { ruleBook } from '@broth/core';
import { ruleSet } from '@broth/core/packs';
import type { DayEvent, KitchenRules, RuleBook, RulePack } from '@broth/core';
import { DEFAULT_PACK, RULE_PACKS } from '@broth/core/packs';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize';
import { notify, takingTurns } from './kitchenStore';
import { KitchenRulesRow } from './models';

/** A kitchen's rules: which pack, what it changed, in versions. What judges at an instant is what stood then. */

export function packOf(packId: string): RulePack | null {
  return RULE_PACKS.find((pack) => pack.id === packId) ?? null;
}

/** What a kitchen begins with. */
export function firstRules(): Omit<KitchenRulesRow['dataValues'], 'kitchenId'> {
  const pack = packOf(DEFAULT_PACK);
  if (pack === null) throw new Error('Invariant: the default pack ships');
  const body: KitchenRules = { packId: pack.id, changes: [], added: [] };
  return { version: 1, since: new Date(0), madeBy: '', body, ruleSet: ruleSet(pack, body, 1) };
}

/** Every version a kitchen had, oldest first. */
export async function ruleVersionsOf(kitchenId: string): Promise<{ readonly versions: readonly RuleVersionOnWire[]; readonly rules: KitchenRules; readonly version: number }> {
  const rows = await KitchenRulesRow.findAll({ where: { kitchenId }, order: [['version', 'ASC']] });
  const newest = rows.at(-1);
  if (newest === undefined) throw new Error(`Invariant: kitchen ${kitchenId} has rules`);
  const versions = rows.map(({ since, madeBy, ruleSet: set }) => ({ since: since.getTime(), by: madeBy, set }) as RuleVersionOnWire);
  return { versions, rules: newest.body, version: newest.version };
}

export async function ruleBookOf(kitchenId: string): Promise<RuleBook> {
  const book = ruleBook((await ruleVersionsOf(kitchenId)).versions);
  if (book === null) throw new Error(`Invariant: kitchen ${kitchenId} has rules`);
  return book;
}

/** Changed rules as the next version, in force from `at` on. `overtaken` when somebody else changed them since `baseVersion`. */
export async function changeRules(
  sequelize: Sequelize,
  kitchenId: string,
  change: { readonly rules: KitchenRules; readonly pack: RulePack; readonly by: string; readonly at: Date; readonly baseVersion: number },
): Promise<'stored' | 'overtaken'> {
  const stored = await takingTurns(sequelize, `${kitchenId} rules`, async (transaction) => {
    const newest = await KitchenRulesRow.max<number, KitchenRulesRow>('version', { where: { kitchenId }, transaction });
    if (newest !== change.baseVersion) return false;
    const version = newest + 1;
    await KitchenRulesRow.create(
      { kitchenId, version, since: change.at, madeBy: change.by, body: change.rules, ruleSet: ruleSet(change.pack, change.rules, version) },
      { transaction },
    );
    return true;
  });
  if (!stored) return 'overtaken';
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
  return 'stored';
}

interface CheckRow {
  readonly at: Date;
  readonly by: string;
  readonly data: Extract<DayEvent, { kind: 'thermometer.checked/1' }>['data'];
}

/** The last checks of every thermometer, oldest first, corrected ones left out: what its readings are worth. */
export async function thermometerChecks(sequelize: Sequelize, kitchenId: string, each = 20): Promise<readonly ThermometerStanding[]> {
  const rows = await sequelize.query<CheckRow>(
    `SELECT at, by, data FROM (
       SELECT at, by, data, row_number() OVER (PARTITION BY data->>'thermometerId' ORDER BY at DESC) AS nth FROM event e
       WHERE kitchen_id = $kitchenId AND kind = 'thermometer.checked/1'
         AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)
     ) last WHERE nth <= $each ORDER BY at`,
    { bind: { kitchenId, each }, type: QueryTypes.SELECT },
  );
  const ids = [...new Set(rows.map((row) => row.data.thermometerId))];
  return ids.map((thermometerId) => ({
    thermometerId,
    checks: rows
      .filter((row) => row.data.thermometerId === thermometerId)
      .map(({ at, by, data }) => ({ at: at.getTime(), by, method: data.method, unit: data.reading.unit, shown: data.reading.value, offset: data.offset, usable: data.usable })),
  }));
}

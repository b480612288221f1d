import type { CalendarDate, DayEventKind, DayPlan, Food, KitchenRules, Lot, RuleSet, Soup, Station } from '@broth/core';
import { DataTypes, Model } from 'sequelize';
import type { CreationOptional, InferAttributes, InferCreationAttributes, Sequelize } from 'sequelize';

/** Rows of what is planned and configured. The event log is not among them: it is written through its own function only. */

export class KitchenRow extends Model<InferAttributes<KitchenRow>, InferCreationAttributes<KitchenRow>> {
  declare kitchenId: string;
  declare name: string;
  declare place: string;
  declare timeZone: string;
  declare temperatureUnit: 'C' | 'F';
  declare invented: boolean;
  /** So long records are kept at least. */
  declare retentionDays: CreationOptional<number>;
}
export class KitchenRulesRow extends Model<InferAttributes<KitchenRulesRow>, InferCreationAttributes<KitchenRulesRow>> {
  declare kitchenId: string;
  declare version: number;
  declare since: Date;
  declare madeBy: string;
  declare body: KitchenRules;
  declare ruleSet: RuleSet;
}
export class InspectorLinkRow extends Model<InferAttributes<InspectorLinkRow>, InferCreationAttributes<InspectorLinkRow>> {
  declare kitchenId: string;
  declare tokenSha256: string;
  declare fromDay: CalendarDate;
  declare toDay: CalendarDate;
  declare madeAt: Date;
  declare madeBy: string;
  declare expiresAt: Date;
  declare revokedAt: CreationOptional<Date | null>;
}
export class StationRow extends Model<InferAttributes<StationRow>, InferCreationAttributes<StationRow>> {
  declare kitchenId: string;
  declare version: number;
  declare body: Station;
}
export class SoupRow extends Model<InferAttributes<SoupRow>, InferCreationAttributes<SoupRow>> {
  declare kitchenId: string;
  declare soupId: string;
  declare version: number;
  declare position: number;
  declare body: Soup;
  declare savedAt: CreationOptional<Date | null>;
  declare savedBy: CreationOptional<string | null>;
  /** Taken out of the book: its versions stay for the batches that were made from it. */
  declare retired: CreationOptional<boolean>;
}
export class PantryRow extends Model<InferAttributes<PantryRow>, InferCreationAttributes<PantryRow>> {
  declare kitchenId: string;
  declare foodId: string;
  declare body: Food;
}
export class StandingParRow extends Model<InferAttributes<StandingParRow>, InferCreationAttributes<StandingParRow>> {
  declare kitchenId: string;
  declare soupId: string;
  declare parL: number;
  declare serviceId: string;
  declare position: number;
}
export class DayParRow extends Model<InferAttributes<DayParRow>, InferCreationAttributes<DayParRow>> {
  declare kitchenId: string;
  declare day: CalendarDate;
  declare soupId: string;
  declare parL: number;
}
export class SaleRow extends Model<InferAttributes<SaleRow>, InferCreationAttributes<SaleRow>> {
  declare kitchenId: string;
  declare day: CalendarDate;
  declare serviceId: string;
  declare soupId: string;
  declare sold: number;
  declare soldOutMin: number | null;
}
export class DayEventRow extends Model<InferAttributes<DayEventRow>, InferCreationAttributes<DayEventRow>> {
  declare kitchenId: string;
  declare day: CalendarDate;
  declare events: DayEventKind[];
}
export class LotRow extends Model<InferAttributes<LotRow>, InferCreationAttributes<LotRow>> {
  declare kitchenId: string;
  declare lotId: string;
  declare soupId: string;
  declare volumeL: number;
  declare state: Lot['state'];
  declare preparedOn: CalendarDate;
  declare frozenDays: number;
}
export class DayPlanRow extends Model<InferAttributes<DayPlanRow>, InferCreationAttributes<DayPlanRow>> {
  declare kitchenId: string;
  declare day: CalendarDate;
  declare version: number;
  declare acceptedAt: Date;
  declare acceptedBy: string;
  declare body: DayPlan;
}

// Sequelize writes into the attribute it is given: every column gets an object of its own.
const key = () => ({ type: DataTypes.TEXT, primaryKey: true });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
const litres = () => ({ type: DataTypes.DOUBLE, allowNull: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });

export function defineModels(sequelize: Sequelize): void {
  const options = { sequelize, timestamps: false, underscored: true };
  KitchenRow.init(
    {
      kitchenId: key(),
      name: text(),
      place: text(),
      timeZone: text(),
      temperatureUnit: text(),
      invented: { type: DataTypes.BOOLEAN, allowNull: false },
      retentionDays: { ...whole(), defaultValue: 365 },
    },
    { ...options, tableName: 'kitchen' },
  );
  const instant = () => ({ type: DataTypes.DATE, allowNull: false });
  KitchenRulesRow.init(
    { kitchenId: key(), version: { ...whole(), primaryKey: true }, since: instant(), madeBy: text(), body: json(), ruleSet: json() },
    { ...options, tableName: 'kitchen_rules' },
  );
  InspectorLinkRow.init(
    {
      kitchenId: key(),
      tokenSha256: key(),
      fromDay: { type: DataTypes.DATEONLY, allowNull: false },
      toDay: { type: DataTypes.DATEONLY, allowNull: false },
      madeAt: instant(),
      madeBy: text(),
      expiresAt: instant(),
      revokedAt: { type: DataTypes.DATE },
    },
    { ...options, tableName: 'inspector_link' },
  );
  StationRow.init({ kitchenId: key(), version: { ...whole(), primaryKey: true }, body: json() }, { ...options, tableName: 'station' });
  SoupRow.init(
    {
      kitchenId: key(),
      soupId: key(),
      version: { ...whole(), primaryKey: true },
      position: whole(),
      body: json(),
      savedAt: { type: DataTypes.DATE },
      savedBy: { type: DataTypes.TEXT },
      retired: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    },
    { ...options, tableName: 'soup' },
  );
  PantryRow.init({ kitchenId: key(), foodId: key(), body: json() }, { ...options, tableName: 'pantry' });
  StandingParRow.init({ kitchenId: key(), soupId: key(), parL: litres(), serviceId: text(), position: whole() }, { ...options, tableName: 'standing_par' });
  DayParRow.init({ kitchenId: key(), day: { type: DataTypes.DATEONLY, primaryKey: true }, soupId: key(), parL: litres() }, { ...options, tableName: 'day_par' });
  const day = () => ({ type: DataTypes.DATEONLY, primaryKey: true });
  SaleRow.init({ kitchenId: key(), day: day(), serviceId: key(), soupId: key(), sold: whole(), soldOutMin: { type: DataTypes.INTEGER } }, { ...options, tableName: 'sale' });
  DayEventRow.init({ kitchenId: key(), day: day(), events: json() }, { ...options, tableName: 'day_event' });
  LotRow.init(
    { kitchenId: key(), lotId: key(), soupId: text(), volumeL: litres(), state: text(), preparedOn: { type: DataTypes.DATEONLY, allowNull: false }, frozenDays: whole() },
    { ...options, tableName: 'lot' },
  );
  DayPlanRow.init(
    {
      kitchenId: key(),
      day: { type: DataTypes.DATEONLY, primaryKey: true },
      version: { ...whole(), primaryKey: true },
      acceptedAt: { type: DataTypes.DATE, allowNull: false },
      acceptedBy: text(),
      body: json(),
    },
    { ...options, tableName: 'day_plan' },
  );
}

import { ruleSet } from '@broth/core/packs';
import { DEFAULT_PACK, RULE_PACKS } from '@broth/core/packs';
import { QueryTypes } from 'sequelize';
import type { QueryInterface } from 'sequelize';

/** Rules by version, raw samples of probes by day, links an inspector may read by; what probes sent is signed for by the server itself. */
export async function foodSafety(query: QueryInterface): Promise<void> {
  const { sequelize } = query;
  await sequelize.query(String.raw`
    UPDATE station SET body = body || '{"altitudeM": 0, "thermometers": []}'::jsonb WHERE NOT body ? 'thermometers';
    ALTER TABLE kitchen ADD COLUMN retention_days integer NOT NULL DEFAULT 365 CHECK (retention_days >= 90);

    -- A version keeps the rules as they read when it was made: a pack that is corrected later judges nothing of before.
    CREATE TABLE kitchen_rules (
      kitchen_id text NOT NULL REFERENCES kitchen, version integer NOT NULL, since timestamptz NOT NULL, made_by text NOT NULL, body jsonb NOT NULL, rule_set jsonb NOT NULL,
      PRIMARY KEY (kitchen_id, version)
    );

    -- What probes send, as they send it. Many and short-lived beside the log: a partition a day, and nothing of it in the events but each minute's digest.
    CREATE TABLE sample (
      kitchen_id text NOT NULL, thermometer_id text NOT NULL, at timestamptz NOT NULL, value real NOT NULL,
      -- Set for what came after its minute was closed: the digest of its own that it is in.
      late_in uuid,
      PRIMARY KEY (kitchen_id, thermometer_id, at)
    ) PARTITION BY RANGE (at);
    CREATE INDEX sample_time ON sample (kitchen_id, at);
    -- Until when minutes are closed. Whoever takes samples in holds it shared, whoever closes a minute alone: none falls between.
    CREATE TABLE sample_head (kitchen_id text PRIMARY KEY REFERENCES kitchen, closed_until timestamptz NOT NULL);
    CREATE FUNCTION ensure_sample_partition(p_day date) RETURNS void LANGUAGE plpgsql AS $$
    DECLARE
      v_name text := 'sample_' || to_char(p_day, 'YYYYMMDD');
    BEGIN
      IF to_regclass(v_name) IS NULL THEN
        PERFORM pg_advisory_xact_lock(7016082);
        EXECUTE format('CREATE TABLE IF NOT EXISTS %I PARTITION OF sample FOR VALUES FROM (%L) TO (%L)', v_name, p_day || ' 00:00Z', (p_day + 1) || ' 00:00Z');
      END IF;
    END $$;

    CREATE FUNCTION take_samples(p_kitchen text, p_late uuid, p_ids text[], p_at double precision[], p_values real[])
    RETURNS TABLE (thermometer_id text, at timestamptz, value real, late_in uuid) LANGUAGE plpgsql AS $$
    #variable_conflict use_column
    DECLARE
      v_closed timestamptz;
    BEGIN
      PERFORM pg_advisory_xact_lock_shared(hashtext('samples ' || p_kitchen));
      SELECT closed_until INTO v_closed FROM sample_head h WHERE h.kitchen_id = p_kitchen;
      RETURN QUERY
        INSERT INTO sample
        SELECT p_kitchen, one.t, to_timestamp(one.a / 1000.0), one.v, CASE WHEN to_timestamp(one.a / 1000.0) < v_closed THEN p_late END
        FROM unnest(p_ids, p_at, p_values) AS one (t, a, v)
        ON CONFLICT DO NOTHING RETURNING sample.thermometer_id, sample.at, sample.value, sample.late_in;
    END $$;
    CREATE FUNCTION close_samples(p_kitchen text, p_until timestamptz) RETURNS void LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM pg_advisory_xact_lock(hashtext('samples ' || p_kitchen));
      INSERT INTO sample_head VALUES (p_kitchen, p_until)
      ON CONFLICT (kitchen_id) DO UPDATE SET closed_until = greatest(sample_head.closed_until, excluded.closed_until);
    END $$;

    CREATE TABLE inspector_link (
      kitchen_id text NOT NULL REFERENCES kitchen, token_sha256 text NOT NULL, from_day date NOT NULL, to_day date NOT NULL,
      made_at timestamptz NOT NULL, made_by text NOT NULL, expires_at timestamptz NOT NULL, revoked_at timestamptz,
      PRIMARY KEY (kitchen_id, token_sha256)
    );

    DO $do$
    DECLARE
      v_was text := pg_get_functiondef('append_event(text, text)'::regprocedure);
      v_is text := regexp_replace(v_was, 'IF NOT EXISTS \(\s+SELECT 1 FROM station s', 'IF v_kind <> ''samples.digested/1'' AND NOT EXISTS (SELECT 1 FROM station s');
    BEGIN
      IF v_is = v_was THEN
        RAISE EXCEPTION 'append_event is not the function this migration changes';
      END IF;
      EXECUTE v_is;
    END $do$;

    -- A thermometer's checks are asked across days, the record of a day by its readings.
    -- What is thrown away and what stands in the cold is asked with every plan.
    CREATE INDEX event_lot ON event (kitchen_id, day) WHERE kind IN ('lot.discarded/1', 'cold.stored/2');
    CREATE INDEX event_check ON event (kitchen_id, (data->>'thermometerId'), at) WHERE kind = 'thermometer.checked/1';
  `);
  const pack = RULE_PACKS.find((one) => one.id === DEFAULT_PACK);
  if (pack === undefined) throw new Error('Invariant: the default pack ships');
  const body = { packId: pack.id, changes: [], added: [] };
  await sequelize.query(`INSERT INTO kitchen_rules SELECT kitchen_id, 1, 'epoch', '', $body::jsonb, $set::jsonb FROM kitchen`, {
    bind: { body: JSON.stringify(body), set: JSON.stringify(ruleSet(pack, body, 1)) },
    type: QueryTypes.INSERT,
  });
}

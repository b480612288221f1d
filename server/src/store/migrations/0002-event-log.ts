import type { QueryInterface } from 'sequelize';

/**
 * The log of what happened. Rows are only ever added, by append_event, which takes the kitchen's head row as its lock: the sequence
 * has no gaps and every hash covers the one before it. UPDATE, DELETE and TRUNCATE are refused by the table itself.
 */
export async function createEventLog(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE event (
      kitchen_id text NOT NULL REFERENCES kitchen,
      seq bigint NOT NULL,
      id uuid NOT NULL,
      kind text NOT NULL,
      day date NOT NULL,
      at timestamptz NOT NULL,
      recorded_at timestamptz NOT NULL,
      by text NOT NULL,
      device text NOT NULL,
      data jsonb NOT NULL,
      hash text NOT NULL,
      PRIMARY KEY (kitchen_id, seq),
      UNIQUE (kitchen_id, id)
    );
    CREATE INDEX event_day ON event (kitchen_id, day, seq);
    -- Whether a batch was started or discarded is asked before every append: only the few events that decide it are indexed.
    CREATE INDEX event_standing ON event (kitchen_id, (data->>'batchId')) WHERE kind IN ('batch.started/1', 'corrective.taken/1');
    CREATE INDEX event_voided ON event (kitchen_id, (data->>'eventId')) WHERE kind = 'event.voided/1';

    CREATE TABLE event_head (kitchen_id text PRIMARY KEY REFERENCES kitchen, seq bigint NOT NULL, hash text NOT NULL);

    CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      RAISE EXCEPTION 'The event log is append-only: % is refused. Correct an entry by adding an event that names it.', TG_OP
        USING ERRCODE = 'insufficient_privilege';
    END $$;
    CREATE TRIGGER event_is_append_only BEFORE UPDATE OR DELETE ON event FOR EACH ROW EXECUTE FUNCTION refuse_change();
    CREATE TRIGGER event_is_never_emptied BEFORE TRUNCATE ON event FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

    -- p_record: the event as canonical JSON (RFC 8785), the very text the hash is taken over.
    -- What decides whether it may be appended is asked under the kitchen's lock, so that two phones cannot pass each other.
    -- Answers what became of it: stored, already, or why not; and the batch's name where that is the reason.
    CREATE FUNCTION append_event(p_kitchen text, p_record text) RETURNS TABLE (outcome text, seq bigint, hash text, batch_name text)
    LANGUAGE plpgsql AS $$
    #variable_conflict use_column
    DECLARE
      r jsonb := p_record::jsonb;
      v_kind text := r->>'kind';
      v_batch text := r->'data'->>'batchId';
      v_name text;
      v_discarded boolean;
      head event_head%ROWTYPE;
    BEGIN
      SELECT * INTO head FROM event_head h WHERE h.kitchen_id = p_kitchen FOR UPDATE;
      IF NOT FOUND THEN
        RETURN QUERY SELECT 'kitchenUnknown', NULL::bigint, NULL::text, NULL::text;
        RETURN;
      END IF;
      RETURN QUERY SELECT 'already', e.seq, e.hash, NULL::text FROM event e WHERE e.kitchen_id = p_kitchen AND e.id = (r->>'id')::uuid;
      IF FOUND THEN RETURN; END IF;

      IF NOT EXISTS (
        SELECT 1 FROM station s WHERE s.kitchen_id = p_kitchen AND s.version = (SELECT max(version) FROM station WHERE kitchen_id = p_kitchen)
          AND s.body->'people' @> jsonb_build_array(jsonb_build_object('id', r->>'by'))
      ) THEN
        RETURN QUERY SELECT 'personUnknown', NULL::bigint, NULL::text, NULL::text;
        RETURN;
      END IF;

      IF v_kind = 'event.voided/1' THEN
        IF NOT EXISTS (SELECT 1 FROM event e WHERE e.kitchen_id = p_kitchen AND e.id = (r->'data'->>'eventId')::uuid) THEN
          RETURN QUERY SELECT 'targetUnknown', NULL::bigint, NULL::text, NULL::text;
          RETURN;
        END IF;
      ELSE
        SELECT max(e.data->>'name') FILTER (WHERE e.kind = 'batch.started/1'), bool_or(e.kind = 'corrective.taken/1' AND e.data->>'action' = 'discard')
        INTO v_name, v_discarded
        FROM event e
        WHERE e.kitchen_id = p_kitchen AND e.data->>'batchId' = v_batch AND e.kind IN ('batch.started/1', 'corrective.taken/1') AND e.day = (r->>'day')::date
          AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text);
        IF v_discarded THEN
          RETURN QUERY SELECT 'batchDiscarded', NULL::bigint, NULL::text, v_name;
          RETURN;
        END IF;
        -- A batch begins when some accepted plan of the day has it, an older version too.
        IF v_name IS NULL AND NOT (v_kind = 'batch.started/1' AND EXISTS (
          SELECT 1 FROM day_plan p WHERE p.kitchen_id = p_kitchen AND p.day = (r->>'day')::date AND p.body->'batches' @> jsonb_build_array(jsonb_build_object('id', v_batch)))) THEN
          RETURN QUERY SELECT 'batchUnknown', NULL::bigint, NULL::text, v_batch;
          RETURN;
        END IF;
      END IF;

      head.seq := head.seq + 1;
      head.hash := encode(sha256(convert_to(head.hash || E'\\n' || head.seq || E'\\n' || p_record, 'UTF8')), 'hex');
      INSERT INTO event VALUES (
        p_kitchen, head.seq, (r->>'id')::uuid, v_kind, (r->>'day')::date,
        to_timestamp((r->>'at')::numeric / 1000), to_timestamp((r->>'recordedAt')::numeric / 1000), r->>'by', r->>'device', r->'data', head.hash);
      UPDATE event_head h SET seq = head.seq, hash = head.hash WHERE h.kitchen_id = p_kitchen;
      PERFORM pg_notify('broth', json_build_object('kitchen', p_kitchen, 'topic', 'events')::text);
      RETURN QUERY SELECT 'stored', head.seq, head.hash, NULL::text;
    END $$;

    -- Every kitchen has its head from the start: it is the lock that appends queue for.
    CREATE FUNCTION begin_event_log() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      INSERT INTO event_head VALUES (NEW.kitchen_id, 0, '');
      RETURN NEW;
    END $$;
    CREATE TRIGGER kitchen_has_a_log AFTER INSERT ON kitchen FOR EACH ROW EXECUTE FUNCTION begin_event_log();
    INSERT INTO event_head SELECT kitchen_id, 0, '' FROM kitchen;
  `);
}

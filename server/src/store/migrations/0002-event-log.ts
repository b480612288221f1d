import type { QueryInterface } from 'sequelize';

/**
 * The log of what happened. Rows are only ever added, by append_event, which takes the kitchen's head row as its lock: the sequence
 * has no gaps and every hash covers the one before it. UPDATE, DELETE and TRUNCATE are refused by the table itself.
 */
export async function up(query: QueryInterface): Promise<void> {
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
    CREATE INDEX event_batch ON event (kitchen_id, (data->>'batchId'));

    CREATE TABLE event_head (kitchen_id text PRIMARY KEY REFERENCES kitchen, seq bigint NOT NULL, hash text NOT NULL);

    CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      RAISE EXCEPTION 'The event log is append-only: % is refused. Correct an entry by adding an event that names it.', TG_OP
        USING ERRCODE = 'insufficient_privilege';
    END $$;
    CREATE TRIGGER event_is_append_only BEFORE UPDATE OR DELETE ON event FOR EACH ROW EXECUTE FUNCTION refuse_change();
    CREATE TRIGGER event_is_never_emptied BEFORE TRUNCATE ON event FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

    -- record: the event as canonical JSON (RFC 8785), the very text the hash is taken over.
    CREATE FUNCTION append_event(p_kitchen text, p_record text) RETURNS TABLE (seq bigint, hash text, stored boolean)
    LANGUAGE plpgsql AS $$
    #variable_conflict use_column
    DECLARE
      r jsonb := p_record::jsonb;
      head event_head%ROWTYPE;
    BEGIN
      INSERT INTO event_head VALUES (p_kitchen, 0, '') ON CONFLICT (kitchen_id) DO NOTHING;
      SELECT * INTO head FROM event_head h WHERE h.kitchen_id = p_kitchen FOR UPDATE;
      RETURN QUERY SELECT e.seq, e.hash, false FROM event e WHERE e.kitchen_id = p_kitchen AND e.id = (r->>'id')::uuid;
      IF FOUND THEN RETURN; END IF;
      head.seq := head.seq + 1;
      head.hash := encode(sha256(convert_to(head.hash || E'\\n' || head.seq || E'\\n' || p_record, 'UTF8')), 'hex');
      INSERT INTO event VALUES (
        p_kitchen, head.seq, (r->>'id')::uuid, r->>'kind', (r->>'day')::date,
        to_timestamp((r->>'at')::numeric / 1000), to_timestamp((r->>'recordedAt')::numeric / 1000), r->>'by', r->>'device', r->'data', head.hash);
      UPDATE event_head h SET seq = head.seq, hash = head.hash WHERE h.kitchen_id = p_kitchen;
      PERFORM pg_notify('broth', json_build_object('kitchen', p_kitchen, 'topic', 'events')::text);
      RETURN QUERY SELECT head.seq, head.hash, true;
    END $$;
  `);
}

// pg is CommonJS: its named exports are only seen through the default one.
import pg from 'pg';

export const { Client } = pg;

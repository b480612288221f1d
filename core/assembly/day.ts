/** What outlines and the table both read of a day. */

export let jobCount: i32 = 0;
export let unitCount: i32 = 0;
/** Of each unit: minutes of wash, `[before * jobs + after]`, 0 = it is not washed; and what that uses. */
export let washes: usize = 0;
export let washUses: usize = 0;

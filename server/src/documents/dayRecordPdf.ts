import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import type { DayRecord } from '@broth/contract/record';
import { INK, MARGIN, MUTED, RIM, openSheet } from './paper';
import type { Paper } from './paper';

const WHAT: Readonly<Record<DayRecord['lines'][number]['what'], string>> = {
  reading: '',
  probe: 'probe',
  place: 'place',
  item: 'goods',
  thermometer: 'thermometer',
  action: 'ACTION',
  decision: 'DECISION',
  missed: 'MISSED',
  correction: 'correction',
  discard: 'discard',
  used: 'used',
  signature: 'signature',
};

const TIME_WIDTH = 62;
const DEGREES_WIDTH = 56;
const WHO_WIDTH = 82;

/** The day's record on paper: verdicts first, then every line, and room for the hand that signs. */
export async function dayRecordPdf(record: DayRecord, paper: Paper): Promise<Buffer> {
  const { kitchen, day, lines, verdicts, patterns, open, signature, head } = record;
  const { pdf, width, room, say, end } = openSheet(`Temperature record ${day}`, paper);
  say('Temperature record', { bold: true, size: 20, gap: 0 });
  say(`${day} · ${kitchen.name}, ${kitchen.place}${kitchen.invented ? ' (invented)' : ''}`, { bold: true, size: 11, color: RIM, gap: 4 });
  say(record.notice, { size: 8.5, color: MUTED });
  for (const pack of record.packs) say(`Judged by ${pack}.`, { size: 8.5, color: MUTED });
  pdf.y += 6;

  say('Verdicts', { bold: true, size: 13 });
  if (verdicts.length === 0) say('Nothing was cooked, held, cooled or reheated yet.');
  for (const one of verdicts) {
    say(`${one.batch}, ${one.purpose.toLowerCase()}: ${words.VERDICT[one.verdict].toUpperCase()}`, { bold: true, gap: 0 });
    say(`${one.says} ${one.rule}.${one.proof.length === 0 ? '' : ` Stands on ${one.proof.join(', ')}.`}`, { indent: 10, size: 9, gap: 4 });
  }
  if (open.length > 0) {
    say('Open', { bold: true, size: 13 });
    for (const one of open) say(one, { indent: 10 });
  }

  pdf.y += 4;
  say('Entries', { bold: true, size: 13 });
  if (lines.length === 0) say('No entry.');
  for (const line of lines) {
    const rest = width - TIME_WIDTH - DEGREES_WIDTH - WHO_WIDTH;
    const kind = WHAT[line.what];
    const first = [kind, line.batch === '' ? line.soup : line.batch, line.purpose, line.pan === null ? '' : `pan ${String(line.pan)}`].filter((one) => one !== '').join(' · ');
    const second = [
      line.verdict === null ? '' : words.VERDICT[line.verdict],
      line.says,
      line.rule === '' ? '' : line.rule,
      line.thermometer,
      line.offset === 0 ? '' : `offset ${String(line.offset)} taken off`,
      line.litres === null ? '' : `${String(line.litres)} L`,
      line.note,
      line.late ? `entered late, ${line.recordedAt.slice(11, 19)}` : '',
      line.voided ? 'VOIDED' : '',
      line.suspect ? 'thermometer failed its next check' : '',
      line.seq === 0 ? '' : `no. ${String(line.seq)}`,
    ]
      .filter((one) => one !== '')
      .join(' · ');
    pdf.font('bold').fontSize(9.5);
    const firstHeight = pdf.heightOfString(first, { width: rest });
    pdf.font('plain').fontSize(8);
    const height = firstHeight + pdf.heightOfString(second, { width: rest }) + 5;
    room(height);
    const { y } = pdf;
    const { clock, offset } = advice.wall(line.takenAt);
    // The local time with its offset: an hour that there is twice stays two.
    pdf.font('plain').fontSize(9).fillColor(INK).text(`${clock} ${offset}`, MARGIN, y, { width: TIME_WIDTH, lineBreak: false });
    if (line.temperature !== null) pdf.font('bold').text(`${String(line.temperature)} °${line.unit ?? ''}`, MARGIN + TIME_WIDTH, y, { width: DEGREES_WIDTH, lineBreak: false });
    pdf
      .font('bold')
      .fontSize(9.5)
      .text(first, MARGIN + TIME_WIDTH + DEGREES_WIDTH, y, { width: rest });
    pdf
      .font('plain')
      .fontSize(8)
      .fillColor(MUTED)
      .text(second, MARGIN + TIME_WIDTH + DEGREES_WIDTH, y + firstHeight, { width: rest });
    pdf.fontSize(8.5).text(line.by, MARGIN + width - WHO_WIDTH, y, { width: WHO_WIDTH, align: 'right' });
    pdf.y = y + height;
  }
  if (patterns.length > 0) {
    pdf.y += 4;
    say('For the reviewer', { bold: true, size: 13 });
    for (const one of patterns) say(one, { indent: 10 });
  }
  pdf.y += 8;
  say('Signed', { bold: true, size: 13 });
  if (signature === null) say('Not signed.');
  else {
    say(`${signature.by}, ${signature.at.slice(0, 16).replace('T', ' ')}, as far as entry ${String(signature.upToSeq)}. ${signature.note}`);
    if (!signature.holds) say('Something was entered after that: the signature no longer holds.', { bold: true });
    if (signature.recordedThemselves) say('Whoever signed also took readings of this day.', { size: 9, color: MUTED });
  }
  room(40);
  pdf.y += 24;
  pdf.lineWidth(0.6).strokeColor(MUTED).moveTo(MARGIN, pdf.y).lineTo(MARGIN + width / 2, pdf.y).stroke(); // prettier-ignore
  say('Signature by hand', { size: 8.5, color: MUTED });
  pdf.y += 6;
  say(`Head of the log when this was written: entry ${String(head.seq)}, ${head.hash}. "npm run verify" works it out again.`, { size: 8, color: MUTED });
  return end(`${kitchen.name} · ${day} · temperature record · written ${record.writtenAt.slice(0, 16).replace('T', ' ')}`);
}

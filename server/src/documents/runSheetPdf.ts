import { words } from '@broth/contract';
import { INK, MARGIN, MUTED, RIM, openSheet } from './paper';
import type { Paper } from './paper';
import type { RunLine } from './runSheet';

const TIME_WIDTH = 78;
const WHO_WIDTH = 92;

interface Basis {
  readonly kitchen: string;
  readonly day: string;
  /** Whose sheet it is; null = the station's. */
  readonly person: string | null;
  readonly version: number;
  readonly lines: readonly RunLine[];
}

/** A day's run sheet on paper: when, who, what, for one person or for all. */
export async function runSheetPdf({ kitchen, day, person, version, lines }: Basis, paper: Paper): Promise<Buffer> {
  const whose = person ?? 'The station';
  const { pdf, width, room, say, end } = openSheet(`Run sheet ${day}, ${whose}`, paper);
  say(`Run sheet, ${whose}`, { bold: true, size: 20, gap: 0 });
  say(`${day} · plan version ${String(version)} · ${kitchen}`, { bold: true, size: 11, color: RIM, gap: 8 });
  if (lines.length === 0) say('Nothing is planned.');
  for (const line of lines) {
    const rest = width - 16 - TIME_WIDTH - (person === null ? WHO_WIDTH : 0);
    const what = `${line.batch === '' ? '' : `${line.batch}${line.litres === null ? '' : `, ${words.litres(line.litres)}`}: `}${line.what}`;
    const more = [line.place, line.check === '' ? '' : `done when: ${line.check.toLowerCase()}`, line.caution].filter((one) => one !== '').join(' · ');
    pdf.font('plain').fontSize(10);
    const height = pdf.heightOfString(what, { width: rest });
    pdf.fontSize(8.5);
    const moreHeight = more === '' ? 0 : pdf.heightOfString(more, { width: rest });
    room(height + moreHeight + 6);
    const { y } = pdf;
    const at = MARGIN + 16;
    pdf
      .lineWidth(0.6)
      .strokeColor(MUTED)
      .rect(MARGIN, y + 2, 8, 8)
      .stroke();
    pdf.font('bold').fontSize(10).fillColor(INK).text(`${line.start} to ${line.end}`, at, y, { width: TIME_WIDTH });
    if (person === null)
      pdf
        .font('plain')
        .fontSize(9)
        .fillColor(MUTED)
        .text(line.person, at + TIME_WIDTH, y + 0.5, { width: WHO_WIDTH });
    const x = at + TIME_WIDTH + (person === null ? WHO_WIDTH : 0);
    pdf.font('plain').fontSize(10).fillColor(INK).text(what, x, y, { width: rest });
    if (more !== '')
      pdf
        .fontSize(8.5)
        .fillColor(MUTED)
        .text(more, x, y + height, { width: rest });
    pdf.y = y + height + moreHeight + 5;
  }
  return end(`${kitchen} · ${day} · ${whose}`);
}

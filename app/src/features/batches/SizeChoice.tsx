import { words } from '@broth/contract';
import { splitChoices, toCookL, vesselsOf } from '@broth/core';
import type { DayPlan } from '@broth/core';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { useDesk } from '../../state/desk';
import type { OpenDay } from '../../state/useDay';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Note, Strong } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';

/** All ways to cook a soup in equal batches, drawn to scale; picking one plans the day afresh with it, and what that costs is said with the draft. */
export function SizeChoice({ day, plan, soupId }: { readonly day: OpenDay; readonly plan: DayPlan; readonly soupId: string }) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const change = useDesk((state) => state.change);
  const vessels = vesselsOf(day.book.station);
  const choices = splitChoices(toCookL(plan, soupId), vessels);
  if (choices.length < 2) return null;
  const name = day.names.soup(soupId);
  const now = plan.batches.filter((batch) => batch.soupId === soupId && batch.state === 'planned').length;
  if (!open)
    return (
      <Action
        style={{ alignSelf: 'flex-start' }}
        label="Other sizes"
        hint={`Other sizes for ${name}`}
        onPress={() => {
          setOpen(true);
        }}
      />
    );
  const pick = (batches: number): void => {
    const others = plan.splits.filter((split) => split.soupId !== soupId);
    // The fewest is what is planned without being asked.
    change(plan, { splits: batches === choices[0]?.sizes.length ? others : [...others, { soupId, batches }] });
  };
  return (
    <View role="radiogroup" aria-label={`Sizes for ${name}`} style={{ gap: 6, width: '100%' }}>
      {choices.map(({ sizes, surplusL }) => {
        const [size] = sizes;
        if (size === undefined) return null;
        const picked = sizes.length === now;
        const fits = vessels.filter((vessel) => size.vesselIds.includes(vessel.id));
        const label = `${String(sizes.length)} × ${words.litres(size.volumeL)}`;
        const where = `${words.list(
          fits.map((vessel) => vessel.name),
          'or',
        )}${surplusL >= 0.5 ? `; ${words.litres(surplusL)} more than needed` : ''}`;
        return (
          <Pressable
            key={sizes.length}
            role="radio"
            aria-checked={picked}
            aria-label={`${label}, ${where}`}
            onPress={() => {
              if (!picked) pick(sizes.length);
            }}
            style={{ borderRadius: 6, borderWidth: picked ? 3 : 1, borderColor: picked ? palette.action : palette.hairline, padding: 10, gap: 6 }}
          >
            <View style={{ flexDirection: 'row', alignItems: 'flex-end', flexWrap: 'wrap', gap: 8 }}>
              {sizes.map((_, index) => {
                const vessel = fits[index % fits.length];
                return vessel === undefined ? null : (
                  <Vessel
                    key={index}
                    name={vessel.name}
                    capacityL={vessel.capacityL}
                    fillL={size.volumeL}
                    minFillL={vessel.minFillL}
                    workingMaxL={vessel.workingMaxL}
                    toneHex={day.soupById.get(soupId)?.toneHex ?? palette.rim}
                    scale={18}
                  />
                );
              })}
              <Strong>{label}</Strong>
            </View>
            <Note>{where}</Note>
          </Pressable>
        );
      })}
    </View>
  );
}

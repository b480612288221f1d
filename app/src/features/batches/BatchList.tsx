import { words } from '@broth/contract';
import { allergensOf, jarFills, jarOf } from '@broth/core';
import type { DayPlan, PlannedBatch } from '@broth/core';
import { useRouter } from 'expo-router';
import { memo } from 'react';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { lazyPart } from '../../ui/lazily';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';

const SizeChoice = lazyPart(() => import('../later').then((part) => part.SizeChoice));

function allergenLine(day: OpenDay, batch: PlannedBatch): string {
  const soup = day.soupById.get(batch.soupId);
  const unknown = soup === undefined ? [] : allergensOf(soup, day.soupById).unknownLines;
  const contains =
    batch.allergens.length === 0 ? 'No listed allergen in the lines that have been read' : `Contains ${words.list(batch.allergens.map((allergen) => words.ALLERGEN[allergen]))}`;
  return unknown.length === 0 ? `${contains}.` : `${contains}. Label not read: ${words.list(unknown)}, so unknown.`;
}

function BatchCard({ day, plan, batch }: { readonly day: OpenDay; readonly plan: DayPlan; readonly batch: PlannedBatch }) {
  const soup = day.soupById.get(batch.soupId);
  const vessel = day.equipmentById.get(batch.vesselId ?? '');
  const jar = jarOf(day.book.station);
  const jarStep = soup?.steps.find((step) => step.place.kind === 'blender' && step.place.tool === 'jar');
  const fills = jarStep === undefined || jar === null ? null : jarFills(batch.volumeL * jarStep.blendShare, jar.hotFillL);
  const router = useRouter();
  const late = batch.lateMin > 0;
  const first = batch.steps[0];
  return (
    <Sheet rim={soup?.toneHex} label={batch.name}>
      <Title level={2}>{batch.name}</Title>
      <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-end' }}>
        {vessel?.kind === 'vessel' ? (
          <Vessel
            name={vessel.name}
            capacityL={vessel.capacityL}
            fillL={batch.volumeL}
            minFillL={vessel.minFillL}
            workingMaxL={vessel.workingMaxL}
            toneHex={soup?.toneHex ?? '#888888'}
          />
        ) : null}
        <View style={{ flex: 1 }}>
          <Figure>{words.litres(batch.volumeL)}</Figure>
          <Note>
            {vessel === undefined
              ? 'Oven and bench'
              : vessel.kind === 'vessel'
                ? `${vessel.name}, ${words.litres(vessel.minFillL)} to ${words.litres(vessel.workingMaxL)}`
                : vessel.name}
          </Note>
        </View>
        <View style={{ alignItems: 'flex-end' }}>
          <Figure style={{ fontSize: 22, lineHeight: 28 }}>{words.clock(batch.readyMin)}</Figure>
          <Note>{batch.readyByMin === null ? 'ready' : `ready, by ${words.clock(batch.readyByMin)}`}</Note>
          <Note>{first === undefined ? '' : `starts ${words.clock(first.startMin)}`}</Note>
        </View>
      </View>
      {late ? <StateMark mark="soon" word={`${words.duration(batch.lateMin)} late`} /> : null}
      {batch.state === 'planned' ? null : <StateMark mark="fine" word={batch.state === 'running' ? 'Begun' : 'Finished'} />}
      {fills === null ? null : <Body style={{ fontSize: 15 }}>{`${String(fills)} fills of the jar, ${words.litres(jar?.hotFillL ?? 0)} each, to the hot-fill line.`}</Body>}
      <Note>{allergenLine(day, batch)}</Note>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {batch === plan.batches.find((one) => one.soupId === batch.soupId && one.state === 'planned') ? <SizeChoice day={day} plan={plan} soupId={batch.soupId} /> : null}
        <Action
          style={{ alignSelf: 'flex-start' }}
          label="Sheet"
          hint={`Sheet of ${batch.name}`}
          onPress={() => {
            router.push(`/sheet/${batch.id}`);
          }}
        />
      </View>
    </Sheet>
  );
}

/** What each soup takes of a component, over all its batches. Litres. */
function asksBySoup(from: DayPlan['components'][number]['from']): readonly (readonly [string, number])[] {
  const bySoup = new Map<string, number>();
  for (const { soupId, volumeL } of from) bySoup.set(soupId, (bySoup.get(soupId) ?? 0) + volumeL);
  return [...bySoup];
}

/** No service is called so. */
const SHARED = ' shared';
const GONE = ' gone';

/** The day's batches: soups by service, then what they share. */
export const BatchList = memo(function BatchList({ day, plan, columns = 1 }: { readonly day: OpenDay; readonly plan: DayPlan; readonly columns?: number }) {
  const byService = day.book.station.services.map((service) => ({
    id: service.id,
    title: `${service.name}, ${words.clock(service.startMin)}`,
    batches: plan.batches.filter((batch) => batch.serviceId === service.id),
  }));
  const shared = plan.batches.filter((batch) => batch.serviceId === null);
  // People may work by a plan that was made before a service was removed.
  const gone = plan.batches.filter((batch) => batch.serviceId !== null && day.book.station.services.every(({ id }) => id !== batch.serviceId));
  const groups = [...byService, { id: GONE, title: 'For a service that was removed', batches: gone }, { id: SHARED, title: 'Shared: stocks and roasts', batches: shared }].filter(
    (group) => group.batches.length > 0,
  );
  const isCalm = (found: DayPlan['findings'][number]): boolean => found.code === 'batch.surplus' || found.code === 'lot.frozen' || found.code === 'plan.leftOut';
  const said = (wanted: (found: DayPlan['findings'][number]) => boolean): readonly string[] => words.findings(plan.findings.filter(wanted), plan, day.names);
  const urgent = said((found) => found.code !== 'plan.late' && !isCalm(found));
  const calm = said(isCalm);
  return (
    <View style={{ gap: 14 }}>
      {urgent.length === 0 ? null : (
        <Sheet label="To put right">
          {urgent.map((sentence) => (
            <View key={sentence} style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark="soon" />
              <Body style={{ flex: 1, fontSize: 15 }}>{sentence}</Body>
            </View>
          ))}
        </Sheet>
      )}
      {groups.map((group) => (
        <View key={group.id} style={{ gap: 8 }}>
          <Title level={2}>{group.title}</Title>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            {group.batches.map((batch) => (
              <View key={batch.id} style={columns === 1 ? { width: '100%' } : { flexGrow: 1, flexBasis: 320, maxWidth: 400 }}>
                <BatchCard day={day} plan={plan} batch={batch} />
              </View>
            ))}
          </View>
          {group.id === SHARED
            ? plan.components.map((component) => (
                <Note key={component.componentId}>
                  {`${day.names.soup(component.componentId)}: ${words.list(asksBySoup(component.from).map(([soupId, volumeL]) => `${words.litres(volumeL)} for ${day.soupById.get(soupId)?.shortName ?? soupId}`))}${component.onHandL > 0 ? `; ${words.litres(component.onHandL)} on hand` : ''}.`}
                </Note>
              ))
            : null}
        </View>
      ))}
      {calm.map((sentence) => (
        <Note key={sentence}>{sentence}</Note>
      ))}
      {groups.length === 0 && urgent.length === 0 ? <Strong>Nothing to cook: what is on hand covers every par.</Strong> : null}
    </View>
  );
});

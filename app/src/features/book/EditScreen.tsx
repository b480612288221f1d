import { useLocalSearchParams, useRouter } from 'expo-router';
import { useBook } from '../../state/useBook';
import { Screen, Waiting } from '../../ui/Screen';
import { Body } from '../../ui/Type';
import { useDay } from '../../state/useDay';
import { SoupEditor } from './edit/SoupEditor';
import { useBack } from './useBack';

/** The card of a soup, open for writing. */
export function EditScreen() {
  const { soupId } = useLocalSearchParams<{ soupId: string }>();
  const open = useBook();
  const day = useDay();
  const router = useRouter();
  const back = useBack(`/book/${soupId}`);
  const soup = open?.soupById.get(soupId);
  const cooking = Object.values(day?.state.batches ?? {}).filter((batch) => batch.soupId === soupId && batch.stage.kind === 'cooking');
  if (open === null || soup === undefined) {
    return (
      <Screen title="Edit" day={false} back={back}>
        {open === null ? <Waiting /> : <Body>This soup is not in the book.</Body>}
      </Screen>
    );
  }
  return (
    <SoupEditor
      key={soup.id}
      title={`Edit ${soup.shortName}`}
      back={back}
      open={open}
      initial={soup}
      baseVersion={soup.version}
      note={
        cooking.length === 0
          ? null
          : `${cooking.map((batch) => batch.name).join(', ')} is on: it keeps version ${String(cooking[0]?.soupVersion ?? soup.version)}. What you save is for the next batch.`
      }
      onSaved={() => {
        router.replace(`/book/${soup.id}`);
      }}
    />
  );
}

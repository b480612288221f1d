import { useState } from 'react';
import { View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { Action, Choice } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Note, Title } from '../../ui/Type';

const LOUD = [
  { value: 'false', label: 'Sound and shake' },
  { value: 'true', label: 'Silent' },
] as const;

/** What this phone does when something is up. */
export function Alerts() {
  const { silent, pickSilent } = usePreferences();
  const [allowed, setAllowed] = useState<NotificationPermission | 'none'>('Notification' in window ? Notification.permission : 'none');
  return (
    <Sheet>
      <Title level={2}>When something is up</Title>
      <Choice
        label="When something is up"
        value={String(silent) as 'true' | 'false'}
        options={LOUD}
        onPick={(picked) => {
          pickSilent(picked === 'true');
        }}
      />
      {allowed === 'default' ? (
        <View style={{ alignItems: 'flex-start' }}>
          <Action label="Tell me when another page is in front" onPress={() => void Notification.requestPermission().then(setAllowed)} />
        </View>
      ) : null}
      <Note>
        {allowed === 'granted'
          ? 'It tells you too when another page is in front. A phone that is locked may keep it back: look.'
          : allowed === 'denied'
            ? 'This browser does not let it tell you when another page is in front. Its own settings can.'
            : allowed === 'none'
              ? 'This browser cannot tell you when another page is in front.'
              : 'A page sounds only after it has been tapped once.'}
      </Note>
    </Sheet>
  );
}

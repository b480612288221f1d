export * from 'react-native-web/dist/modules/forwardedProps';
import { accessibilityProps as base } from 'react-native-web/dist/modules/forwardedProps';
export const accessibilityProps = { ...base, accessibilityState: true, accessibilityValue: true };

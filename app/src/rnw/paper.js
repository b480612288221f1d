// What this app uses of Paper, and nothing else: its own index would bring every component along, a fifth of the first load.
export { default as PaperProvider } from 'react-native-paper/lib/module/core/PaperProvider';
export { default as Switch } from 'react-native-paper/lib/module/components/Switch/Switch';
export { MD3DarkTheme, MD3LightTheme } from 'react-native-paper/lib/module/styles/themes';

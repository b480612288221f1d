import base from 'react-native-web/dist/modules/createDOMProps';

// react-native-web 0.21 forgets accessibilityState and accessibilityValue: put them back as the ARIA attributes they mean.
const put = (props, name, value) => {
  if (value !== undefined && value !== null && props[name] === undefined) props[name] = value;
};

export default function createDOMProps(elementType, props, options) {
  if (!props || (props.accessibilityState == null && props.accessibilityValue == null)) return base(elementType, props, options);
  const { accessibilityState: state, accessibilityValue: value, ...rest } = props;
  const role = rest.role ?? rest.accessibilityRole;
  if (state) {
    put(rest, 'aria-disabled', state.disabled || undefined);
    put(rest, 'aria-busy', state.busy || undefined);
    put(rest, 'aria-expanded', state.expanded);
    if (['checkbox', 'radio', 'switch', 'menuitemcheckbox', 'menuitemradio'].includes(role)) put(rest, 'aria-checked', state.checked ?? state.selected ?? false);
    else if (['tab', 'option', 'row', 'gridcell', 'columnheader'].includes(role)) put(rest, 'aria-selected', state.selected);
    else if (role === 'button' || role === 'togglebutton') put(rest, 'aria-pressed', state.checked ?? state.selected);
  }
  if (value) {
    put(rest, 'aria-valuemin', value.min);
    put(rest, 'aria-valuemax', value.max);
    put(rest, 'aria-valuenow', value.now);
    put(rest, 'aria-valuetext', value.text);
  }
  return base(elementType, rest, options);
}

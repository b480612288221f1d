interface Kept {
  readonly persist: { readonly getOptions: () => { readonly name?: string | undefined }; readonly rehydrate: () => Promise<void> | void };
}

/** What another tab of this device has written is read at once: kept whole, each tab's would go over the other's. */
export function followOtherTabs({ persist }: Kept): void {
  window.addEventListener('storage', ({ key, newValue }) => {
    if (key === persist.getOptions().name && newValue !== null) void persist.rehydrate();
  });
}

type Mode = 'light' | 'dark';

const KEY = 'mirrot-mode';

function stored(): Mode | null {
  const value = globalThis.localStorage?.getItem(KEY);
  return value === 'light' || value === 'dark' ? value : null;
}

let value: Mode | null = $state(stored());

/** Light or dark as the user chose; null follows the system. */
export const rememberedMode = {
  get value(): Mode | null {
    return value;
  },
};

const isDark = (): boolean => (value ? value === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches);

export function turnMode(): void {
  value = isDark() ? 'light' : 'dark';
  localStorage.setItem(KEY, value);
}

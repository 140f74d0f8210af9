/** Where the choice is kept. The page's head reads it before the first paint. */
const CHOICE = 'mode';

const inBrowser = typeof document !== 'undefined';
let isDark = $state(inBrowser && document.documentElement.dataset.mode === 'dark');

function show(dark: boolean): void {
  isDark = dark;
  document.documentElement.dataset.mode = dark ? 'dark' : 'light';
}

// Until one is chosen, colours follow the system's, which may change with the hour.
if (inBrowser)
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', ({ matches }) => {
    if (!localStorage.getItem(CHOICE)) show(matches);
  });

/** Light or dark: the system's, or what the user chose. */
export const mode = {
  get isDark() {
    return isDark;
  },
  toggle(): void {
    show(!isDark);
    localStorage.setItem(CHOICE, isDark ? 'dark' : 'light');
  }
};

/** Light or dark. The page's head sets it before the first paint; the choice is kept. */
let isDark = $state(
  typeof document !== 'undefined' && document.documentElement.dataset.mode === 'dark'
);

export const mode = {
  get isDark() {
    return isDark;
  },
  toggle(): void {
    isDark = !isDark;
    document.documentElement.dataset.mode = isDark ? 'dark' : 'light';
    localStorage.setItem('mode', isDark ? 'dark' : 'light');
  }
};

const KEY = 'wanderon.theme';
type Theme = 'day' | 'night';

/** The person's choice, else what the system prefers. */
export function currentTheme(): Theme {
  const stored = localStorage.getItem(KEY);
  if (stored === 'day' || stored === 'night') return stored;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

export function startTheme(): void {
  document.documentElement.dataset['theme'] = currentTheme();
}

export function toggleTheme(): void {
  localStorage.setItem(KEY, currentTheme() === 'day' ? 'night' : 'day');
  startTheme();
}

/** Colours of the theme as a canvas takes them, by the names of their properties. */
export function themeColours<N extends string>(names: Record<N, string>): Record<N, string> {
  const style = getComputedStyle(document.documentElement);
  const probe = document.createElement('span');
  document.body.append(probe);
  const colours = Object.entries<string>(names).map(([name, property]) => {
    probe.style.color = style.getPropertyValue(property) || 'currentColor';
    return [name, getComputedStyle(probe).color];
  });
  probe.remove();
  return Object.fromEntries(colours) as Record<N, string>;
}

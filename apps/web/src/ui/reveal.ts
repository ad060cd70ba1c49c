/** Scrolls a list so that its chosen line and what is unfolded below it are in sight, under headings that stick. */
export function revealChosen(list: HTMLElement | null): void {
  const chosen = list?.querySelector<HTMLElement>('[data-chosen]');
  if (!list || !chosen) return;
  const below = chosen.nextElementSibling instanceof HTMLElement ? chosen.nextElementSibling : chosen;
  const frame = list.getBoundingClientRect();
  const top = chosen.getBoundingClientRect().top - frame.top - 64;
  const bottom = below.getBoundingClientRect().bottom - frame.bottom;
  if (top < 0) list.scrollTop += top;
  else if (bottom > 0) list.scrollTop += Math.min(bottom, top);
}

/** Colours, letters and options that all charts share, as the page's theme has them now. */
export function chartTheme() {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string): string => style.getPropertyValue(name).trim() || '#555';
  const [quiet, line] = [colour('--quiet'), colour('--line')];
  const ticks = {
    color: quiet,
    font: { family: 'Atkinson Hyperlegible Next Variable, sans-serif', size: 11 },
  };
  return {
    colours: { quiet, line, plum: colour('--plum'), leaf: colour('--leaf'), brick: colour('--brick') },
    /** An axis with lines across the chart, and one without. */
    measured: { grid: { color: line }, border: { display: false }, ticks },
    named: { grid: { display: false }, border: { color: line }, ticks },
    options: {
      animation: false as const,
      responsive: true,
      maintainAspectRatio: false,
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
    },
  };
}

/** "45 s", "3 min 20 s", "1 h 05 min". */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, "0")} s`;
  return `${Math.floor(whole / 3600)} h ${String(Math.round((whole % 3600) / 60)).padStart(2, "0")} min`;
}

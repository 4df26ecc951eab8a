// Chooses the day or the night set before anything is drawn: by hand when the driver chose, else by the system.
(() => {
  const dark = matchMedia('(prefers-color-scheme: dark)');
  const apply = () => {
    let chosen = 'system';
    try {
      chosen = localStorage.getItem('mile.sheet') || 'system';
    } catch {}
    document.documentElement.dataset.sheet = chosen === 'day' || chosen === 'night' ? chosen : dark.matches ? 'night' : 'day';
  };
  window.mileSheet = apply;
  apply();
  dark.addEventListener('change', apply);
  addEventListener('mile:sheet', apply);
})();

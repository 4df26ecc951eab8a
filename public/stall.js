// Says so where the Stall's own script cannot be fetched or begun: without it the page would stand at "Opening" for good.
(() => {
  const its = /\/_next\/static\/stall\//;
  const tell = ({ target, filename }) => {
    const trouble = document.querySelector('[data-stall] [role=alert][hidden]');
    if (!trouble || !its.test(target.src || filename)) return;
    document.querySelector('[data-stall] [role=status]').remove();
    trouble.hidden = false;
  };
  // What is not fetched is told to its element alone, on the way down.
  addEventListener('error', tell, true);
})();

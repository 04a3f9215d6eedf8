/** How far below what is seen something counts as near, page pixels. */
const NEAR_PX = 800;

/** Calls once the element is in sight or will be soon. */
export const nearSight =
  (run: () => void) =>
  (element: Element): (() => void) => {
    const watch = new IntersectionObserver(
      (entries) => {
        if (entries.some((entry) => entry.isIntersecting)) run();
      },
      { rootMargin: `0px 0px ${NEAR_PX}px 0px` },
    );
    watch.observe(element);
    return () => watch.disconnect();
  };

import type { Page } from "@playwright/test";

/**
 * What of a page can't be seen as it stands: words that lie beside the window, or are cut off by what holds them with
 * nothing to scroll and no dots to say so; empty where all is in sight.
 */
export const layoutFaults = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const faults = new Set<string>();
    if (document.documentElement.scrollWidth > innerWidth) faults.add(`wider by itself: ${location.pathname}`);
    const worded = "button, a, input, select, label, h1, h2, h3, p, b, span, dt, dd, th, td";
    for (const element of document.querySelectorAll<HTMLElement>(worded)) {
      const words = (element.getAttribute("aria-label") ?? element.textContent).trim().slice(0, 40);
      const { left, right, width, height } = element.getBoundingClientRect();
      if (!words || width < 2 || height < 2 || !element.checkVisibility()) continue;
      const parents: HTMLElement[] = [];
      for (let one = element.parentElement; one && one !== document.body; one = one.parentElement) parents.push(one);
      const styles = parents.map((one) => getComputedStyle(one));
      const scrolls = parents.some(
        (one, i) => /auto|scroll/.test(styles[i]!.overflowX) && one.scrollWidth > one.clientWidth,
      );
      const { position } = getComputedStyle(element);
      if (scrolls || position === "fixed") continue;
      if (right > innerWidth + 1 || left < -1) faults.add(`beside the window: ${words}`);
      const [own] = [getComputedStyle(element)];
      if (element.children.length > 0) continue;
      if (own.overflowX !== "visible" && own.textOverflow !== "ellipsis" && element.tagName !== "INPUT")
        if (element.scrollWidth > element.clientWidth + 1) faults.add(`cut off: ${words}`);
      for (const [i, one] of parents.entries()) {
        if (!/hidden|clip/.test(styles[i]!.overflowX) || styles[i]!.textOverflow === "ellipsis") continue;
        const box = one.getBoundingClientRect();
        if (right > box.right + 2 && left < box.right) faults.add(`cut off by what holds it: ${words}`);
      }
    }
    return [...faults];
  });

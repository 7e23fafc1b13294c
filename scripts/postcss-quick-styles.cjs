/**
 * Takes out of the component library what makes every change of a page costly: rules for a wrapper that holds a disabled
 * field. The browser then asks of every change whether it is held by such a wrapper; this program has none, and a page of
 * two thousand elements was worked out anew, some 40 ms, at every key.
 */
const HOLDS_A_DISABLED_FIELD = /:has\(\s*>\s*(input|select|textarea)\[disabled\]\s*\)/;

/** @returns {import('postcss').Plugin} */
const quickStyles = () => ({
  postcssPlugin: 'quick-styles',
  OnceExit(root) {
    root.walkRules(HOLDS_A_DISABLED_FIELD, (rule) => {
      const kept = rule.selectors.filter((s) => !HOLDS_A_DISABLED_FIELD.test(s));
      if (kept.length === 0) rule.remove();
      else rule.selectors = kept;
    });
  },
});
quickStyles.postcss = true;

module.exports = quickStyles;

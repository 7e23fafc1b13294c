// Named by its whole path: the builder asks for plugins from a folder of its own.
const config = {
  plugins: { '@tailwindcss/postcss': {}, [`${process.cwd()}/scripts/postcss-quick-styles.cjs`]: {} },
};

export default config;

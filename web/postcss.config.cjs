module.exports = {
  plugins: { 'postcss-preset-mantine': {}, 'postcss-simple-vars': { variables: { 'bp-narrow': '62em' } } },
}

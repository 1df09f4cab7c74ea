/** The tests of a Vitest report by how long each took, ms. */
export function ofVitest(report) {
  return report.testResults.flatMap(({ name, assertionResults }) =>
    assertionResults.map(({ fullName, duration }) => ({ file: fileOf(name), test: fullName, ms: duration ?? 0 })),
  )
}

/** The tests of a Playwright report by how long each took, ms. */
export function ofPlaywright(report) {
  const found = []
  const walk = (suite) => {
    for (const spec of suite.specs ?? [])
      for (const { results } of spec.tests)
        found.push({ file: spec.file, test: spec.title, ms: results.reduce((sum, r) => sum + r.duration, 0) })
    for (const inner of suite.suites ?? []) walk(inner)
  }
  for (const suite of report.suites) walk(suite)
  return found
}

/** The `most` slowest, a line each. */
export function slowest(tests, most) {
  return tests
    .toSorted((a, b) => b.ms - a.ms)
    .slice(0, most)
    .map(({ file, test, ms }) => `${(ms / 1000).toFixed(1).padStart(7)} s  ${file} › ${test}`.slice(0, 150))
}

const fileOf = (path) => path.split('/').slice(-3).join('/')

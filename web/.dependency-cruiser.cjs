// What may know what: each folder of src knows only those before it, and a feature another one only by what that shows.
const folders = ['api', 'reader', 'model', 'ui', 'undo', 'frame', 'features', 'wall', 'app']

module.exports = {
  forbidden: [
    ...folders.slice(0, -1).map((folder, at) => ({
      name: `${folder}-knows-only-what-is-below-it`,
      severity: 'error',
      from: { path: `^src/${folder}/` },
      to: { path: `^src/(${folders.slice(at + 1).join('|')})/` },
    })),
    {
      name: 'a-feature-shows-what-others-use-in-its-index',
      severity: 'error',
      from: { path: '^src/features/([^/]+)/' },
      to: { path: '^src/features/(?!$1/)[^/]+/(?!index\\.ts$)' },
    },
    {
      name: 'every-folder-has-its-place',
      severity: 'error',
      from: { path: `^src/(?!main\\.tsx|(${folders.join('|')})/)` },
      to: {},
    },
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
}

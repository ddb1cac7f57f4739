import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  ...tseslint.configs.recommendedTypeChecked,
  // A function that throws is a promise that fails only where it is async.
  { rules: { '@typescript-eslint/require-await': 'off' } },
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  reactHooks.configs.flat['recommended-latest'],
);

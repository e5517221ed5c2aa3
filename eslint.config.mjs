import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/.next/**', '.data/**', 'next-env.d.ts', 'test-results/**'] },
  ...tseslint.configs.strict,
  {
    files: ['src/**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeCheckedOnly],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // Every kind is named: a new one is an error at each place that has to know it, and no default takes it.
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { allowDefaultCaseForExhaustiveSwitch: false, considerDefaultExhaustiveForUnions: false },
      ],
      'react-hooks/exhaustive-deps': 'error',
      // These are about React's compiler, which we do not use.
      'react-hooks/incompatible-library': 'off',
      'react-hooks/preserve-manual-memoization': 'off',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      eqeqeq: 'error',
    },
  },
  {
    // The core has one front door, and a door for each of its rooms; only its own tests look behind them.
    files: ['src/{app,cli,demo,server,ui}/**', 'bench/**', 'tests/{browser,cli,server,ui}/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@/core/*/*', '**/core/*/**', '!**/tests/core/**', '!../core/arbitrary'],
              message:
                'Import it from @/core, or from the door of its room: @/core/model, condition, access, edit, making or converting.',
            },
          ],
        },
      ],
    },
  },
  { files: ['bin/**', 'tests/**', 'bench/**'], rules: { 'no-console': 'off' } },
);

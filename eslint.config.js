import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import { defineConfig, globalIgnores } from 'eslint/config'
import tseslint from 'typescript-eslint'

export default defineConfig([
  globalIgnores(['dist/', 'generated/', 'node_modules/', 'data/', 'test-results/', '.cache/']),
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx,mts}'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
    },
  },
  {
    files: ['core/**/*.ts'],
    // What decides which tests are run asks the run itself.
    ignores: ['**/*.test.ts', 'core/testing/many.ts'],
    rules: {
      // The computation takes its clock and its chance from outside.
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core takes the time as an argument.' },
        { object: 'Math', property: 'random', message: 'core takes a seeded generator.' },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['web/**/*.tsx'],
    // The house's own parts, and what is printed.
    ignores: ['web/ui/**', 'web/cards/PlanCard.tsx', 'web/cards/ConsentCard.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/^(button|input|select|textarea|table|dialog|details)$/]',
          message:
            'The interface is Mantine’s, dressed by web/theme; parts of our own live in web/ui.',
        },
      ],
    },
  },
  {
    files: ['**/*.{js,mjs,cjs}'],
    languageOptions: {
      globals: {
        console: 'readonly',
        process: 'readonly',
        module: 'writable',
        require: 'readonly',
      },
    },
  },
  {
    files: ['**/*.test.ts', 'e2e/**', 'bench/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/unbound-method': 'off',
      // Playwright's fixtures name what they take, even when it is nothing.
      'no-empty-pattern': 'off',
    },
  },
])

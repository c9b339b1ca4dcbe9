import js from '@eslint/js';
import angular from 'angular-eslint';
import globals from 'globals';
import ts from 'typescript-eslint';

const TYPED = {
  languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
};

const NO_ENUM = { selector: 'TSEnumDeclaration', message: 'Use a union of words; see CONTRIBUTING.md' };

/** Names of quantities say their unit (but scales: pxPerM); adding, taking off, multiplying or dividing one is a formula. */
const QUANTITY = '/[a-z0-9](?<![pP]er)(Kg|KgPerM3|M|M2|M3|M4|S|N|Nm|J|JPerM|W|V|Pa|Rad|F|Ohm|K)$/';
const OF_QUANTITY = `:matches(Identifier[name=${QUANTITY}], MemberExpression[property.name=${QUANTITY}])`;
const NO_FORMULA = {
  selector: `:matches(BinaryExpression[operator=/^[-+*\\u002f%]$/], AssignmentExpression[operator=/^[-+*\\u002f]=$/]) > ${OF_QUANTITY}`,
  message: 'A formula on a quantity stands in core, with its test; see CONTRIBUTING.md',
};

export default ts.config(
  {
    ignores: [
      '**/node_modules/**',
      '**/dist/**',
      '.data/**',
      '.test-data/**',
      '.angular/**',
      '**/*.tmp.mjs',
      'test-results/**',
      'web/testing/**',
      'bench/built.mjs',
    ],
  },
  js.configs.recommended,
  { files: ['**/*.mjs'], languageOptions: { globals: globals.node } },
  {
    files: ['**/*.ts'],
    extends: [...ts.configs.strictTypeChecked, ...ts.configs.stylisticTypeChecked],
    ...TYPED,
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { varsIgnorePattern: '^_', argsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/explicit-module-boundary-types': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowNullish: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidOperator: true, ignoreVoidReturningFunctions: true },
      ],
      'no-restricted-syntax': ['error', NO_ENUM],
      // indexes that a loop has just made are known to be there
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'eb', style: 'kebab-case' }],
      '@angular-eslint/component-class-suffix': 'off',
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/click-events-have-key-events': 'off',
      '@angular-eslint/template/interactive-supports-focus': 'off',
      '@angular-eslint/template/label-has-associated-control': [
        'error',
        { controlComponents: ['eb-choose', 'eb-day-field', 'eb-edit-field', 'p-checkbox', 'p-radiobutton', 'p-slider', 'p-autocomplete'] },
      ],
    },
  },
  { files: ['web/src/app/**/*.ts'], ignores: ['**/*.test.ts'], rules: { 'no-restricted-syntax': ['error', NO_ENUM, NO_FORMULA] } },
  { files: ['**/testing/**'], extends: [ts.configs.disableTypeChecked] },
  { files: ['web/src/main.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['**/*.test.ts', '**/testing/**'],
    rules: { '@typescript-eslint/explicit-module-boundary-types': 'off', '@typescript-eslint/explicit-function-return-type': 'off' },
  },
);

import base from '/work/main/playwright.config';
export default { ...base, globalSetup: undefined, testDir: '/work/main/e2e' };

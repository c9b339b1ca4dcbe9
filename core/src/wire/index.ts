export * from './instruments';
export * from './people';
export * from './plan';
export * from './refusal';
export * from './routes';
export * from './studies';

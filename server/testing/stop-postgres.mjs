export default async () => {
  await globalThis.eachBoltTestDatabase?.stop();
};

import { sampleSheets } from '@/contract/studio/making';
import { sheetsToTry } from '@/server/making/sample-sheets';
import { asBuilder } from '@/server/studio/answering';

export const GET = asBuilder(sampleSheets, async () => ({ files: await sheetsToTry() }));

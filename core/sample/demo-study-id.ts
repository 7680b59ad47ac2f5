import type { Id } from '../model/ids';

/** The demo study always has this id, so that it is found again. Apart from its builder, which the first screen does not need. */
export const DEMO_STUDY_ID: Id = 'f11f0000-0000-4000-8000-000000000000';

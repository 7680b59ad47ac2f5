/// <reference lib="webworker" />
import { expose } from 'comlink';
import { SoundWork } from '@core/sound/sound-work';

expose(new SoundWork());

import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app.config';
import { Root } from './shell/root';
import { installPalette } from './styles/palette-sheet';

installPalette(document);
bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));

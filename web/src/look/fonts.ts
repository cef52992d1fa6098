import "@fontsource-variable/fraunces/wght.css";
// these say for which letters each of their files is; the files of one alphabet alone don't,
// and the last one imported would draw every letter, an "a" with a bar among them
import "@fontsource/ibm-plex-sans/400.css";
import "@fontsource/ibm-plex-sans/500.css";
import "@fontsource/ibm-plex-sans/600.css";

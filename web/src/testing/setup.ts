// What every component stands on in the app: the theme's sheets, without the fonts.
import "../theme/bootstrap.scss";
import "../theme/tokens.css";
import "../theme/base.css";
import "../theme/parts.css";
import "../theme/figure.css";

"""Findings in Spanish: those that the bench shows, of a run that is measured and laid out."""

FINDINGS: dict[str, tuple[str, str]] = {
    "not_measured": ("Falta medir: {called}, {what}.", ""),
    "not_measured.end": ("Falta medir: hasta dónde asienta el tubo al final.", ""),
    "short_radius": (
        "Esta zapata dobla con un radio de {radius}, menos que el mínimo usual de {least} para esta medida.",
        "Compruebe los datos de la zapata con una curva de prueba en un retazo, y su reglamento local.",
    ),
    "too_near.start": (
        "{step}: muy poco tubo antes. A {at} su curva empezaría {short} antes del inicio del tubo.",
        "Con esta zapata, {least} es lo menos que le deja lugar.",
    ),
    "too_near.bend": (
        "{step}: muy poco tubo antes. A {at} su curva empezaría {short} antes de que termine la curva {bend}.",
        "Con esta zapata, {least} es lo menos que le deja lugar.",
    ),
    "too_many_degrees": (
        "Las curvas entre dos puntos de jalado suman {degrees}°, más que los {most}° permitidos.",
        "Use bayonetas más suaves, o ponga un punto de jalado antes del paso {step}. Revise su reglamento local.",
    ),
    "straight_at_connector.start": (
        "Solo {straight} de tubo recto donde empieza la corrida; puede no asentar en el conector.",
        "Deje {least} o más de recto en la caja de inicio.",
    ),
    "straight_at_connector.end": (
        "Solo {straight} de tubo recto donde termina la corrida; puede no asentar en el conector.",
        "Deje {least} o más de recto en la caja final.",
    ),
    "supports": (
        "Desde {begins} a lo largo del tubo cuelgan {span} libres, más que los {most} permitidos: nada más se apoya "
        "ahí.",
        "Sujételo ahí a algo propio, o haga el paso de otra manera. Revise su reglamento local.",
    ),
    "closure": (
        "La corrida no da con la caja por {off}, según la caja medida aparte ({parts}).",
        "Una de las medidas está mal; vuelva a tomar la más larga.",
    ),
    "no_coupling_place": (
        "La corrida es más larga que un tramo de {stick} y ningún recto tiene lugar para sus coples.",
        "Separe las curvas, ponga una caja en medio, o córtela de tramos más largos donde Existencias los tenga.",
    ),
    "short_straight.before": (
        "{step}: solo {straight} de tubo recto antes de la curva {bend}; esta zapata necesita ahí {needs}.",
        "Dele más lugar.",
    ),
    "short_straight.between": (
        "{step}: solo {straight} de tubo recto entre las curvas {before} y {bend}; esta zapata necesita ahí {needs}.",
        "Dele más lugar.",
    ),
    "short_straight.within": (
        "{step}: solo {straight} de tubo recto entre las curvas {before} y {bend}; esta zapata necesita ahí {needs}.",
        "Dóblelo con un ángulo más suave, o súbalo más.",
    ),
    "no_order": (
        "Pieza {piece}: sus curvas no se pueden hacer en ningún orden. {why}",
        "Deles más lugar, haga un paso de otra manera, o ponga en medio un cople o una caja.",
    ),
    "bend_long": (
        "{step}: la zapata no agarra tan cerca del extremo B de la pieza {piece}.",
        "Deje ahí {spare} de sobra, dóblelo, y córtelo después.",
    ),
    "runs_into_thing": (
        "{step}: el tubo se metería {deep} en {thing}.",
        "Súbalo más, dóblelo con un ángulo más suave, o empiécelo antes.",
    ),
    "little_clearance": (
        "{step}: libra {thing} por {clears}, menos que los {wanted} que se pidieron.",
        "Súbalo más, dóblelo con un ángulo más suave, o empiécelo antes.",
    ),
    "runs_into_itself": (
        "{step}: después de él el tubo choca consigo mismo, después de {before}.",
        "Vuelva a medir estos tramos, o deje que uno pase al otro con una bayoneta.",
    ),
}

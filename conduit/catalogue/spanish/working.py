"""The exact way as arithmetic, in Spanish."""

WORKING: dict[str, str | tuple[str, str]] = {
    "work.radius": "Radio del eje del tubo: (ganancia {gain} − diámetro {diameter}) ÷ {divisor} = {radius}.",
    "work.arc_offset": "De la flecha a donde empieza una curva: deducción {deduct} − radio {radius} − medio diámetro "
    "{half} = {offset}.",
    "work.ahead": "Tubo recto que necesita delante de una curva: {front} ({hook}) + {offset} = {ahead}.",
    "work.behind": "Detrás de una curva: {behind} ({heel}), y {oval} para no caer en una pared ovalada. Entre dos "
    "curvas, lo menor de ambos.",
    "work.hook_measured": "de su borde delantero a la flecha",
    "work.hook_usual": "3/8 del radio, su frente no está medido",
    "work.heel_measured": "como se midió",
    "work.heel_usual": "medio diámetro del tubo, su talón no está medido",
    "work.arc": "La curva toma {pipe} de tubo: radio {radius} × {angle} × π ÷ 180. Empieza en {start} y termina en "
    "{end}.",
    "work.arrow_a": "Flecha, gancho hacia A: {start} − {offset} = {arrow}.",
    "work.arrow_b": "Flecha, gancho hacia B: {end} + {offset} = {arrow}.",
    "work.reference": "La referencia {reference} está {distance} más hacia el talón: {sum} = {at}.",
    "work.tape": "En su cinta {at}.",
    "reference.arrow": "flecha",
    "reference.star": "estrella",
    "reference.notch": "muesca",
    "reference.front": "frente",
    "work.spacing": "Entre las marcas de sus dos primeras curvas: recto {straight} + la mitad de los dos arcos {arcs} "
    "= {spacing}.",
    "work.shrink": "Encogimiento: tubo usado {used} − espacio a lo largo del tramo {along} = {shrink}.",
    "work.around": "Alrededor de {pipe}: su radio {radius} + la mitad de los dos diámetros, ({theirs} + {own}) ÷ 2, + "
    "la separación {gap} = {sum}.",
    "work.shots": "{shots} dobleces de {each}° con un radio de {radius}.",
    "work.rolled": "Subida verdadera: √({rise}² + {roll}²) = {true}; girada por el ángulo cuya tangente es lado "
    "{roll} ÷ subida {rise}: {angle} de {toward} hacia {aside}.",
    "work.set_rolled": "Para ponerla: un medidor contra los dos tramos marca 0 mientras la bayoneta está en el sentido "
    "de su subida; gire el tubo hasta que marque {angle}.",
    "work.kick_or_offset": "Un quiebre sirve donde la curva de 90 queda en el borde del nivel nuevo. Para asentar un "
    "trecho tome una bayoneta: una curva más.",
    "work.kick": "Quiebre: el ángulo cuya tangente es subida {rise} ÷ retroceso {setback}: {angle}.",
    "work.slope": "Gira {angle}, regresa {back}, y sigue {off} fuera del tramo anterior.",
    "work.corner": "De esquina a esquina: {rise} ÷ sen {angle} = {travel}.",
    "work.corner_saddle": "De esquina a esquina: {rise} ÷ sen {angle} = {travel}. La esquina queda más alta que el "
    "medio del tubo ahí, porque la curva la recorta.",
    "work.taken": "Las curvas toman {one} y {other} de eso (radio × tan de la mitad del ángulo); recto entre ellas: "
    "{straight}.",
    "work.gain": "Dando la vuelta por la esquina la cinta mediría 2 × {reach}; la curva de {angle} usa {pipe} de tubo. "
    "Ahorra {gain}.",
}

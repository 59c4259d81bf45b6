"""The bench in Spanish."""

BENCH: dict[str, str | tuple[str, str]] = {
    # Turning the pipe.
    "roll.first": "Primera curva: el tubo como quede. Raye una línea a lo largo por arriba; son las 12.",
    "roll.none": "No gire el tubo: la curva {bend} sigue apuntando {stands}.",
    "roll.until": "Gire el tubo hasta que la curva {bend} apunte {stands}, vista desde A.",
    "roll.half": "Dele media vuelta al tubo: la curva {bend} apunta {stands}. Un nivel de abrazadera puesto antes "
    "vuelve a marcar 0.",
    "roll.clockwise": "Gire el tubo {angle} en sentido del reloj, visto desde A: la curva {bend} apunta {stands}. Un "
    "nivel de abrazadera puesto antes marca entonces {level}.",
    "roll.anticlockwise": "Gire el tubo {angle} en contra del reloj, visto desde A: la curva {bend} apunta {stands}. "
    "Un nivel de abrazadera puesto antes marca entonces {level}.",
    "stands.up": "derecho hacia arriba",
    "stands.down": "derecho hacia abajo",
    "stands.to": "hacia las {clock}",
    "clock.hour": "{hour} del reloj",
    "turned.clockwise": "{angle} en sentido del reloj",
    "turned.anticlockwise": "{angle} en contra del reloj",
    # What tape and level must read.
    "reading.legs": "Ángulo entre los dos tramos",
    "reading.end_b": "De {hooked} al extremo B",
    "reading.back": "De {hooked} al lomo de esta curva, con una regla a lo largo de él",
    "hooked.end_a": "el extremo A",
    "hooked.end_b": "el extremo B",
    "hooked.back": "el lomo de la curva {bend}",
    "reading.sweep": "La curva amplia hasta aquí, {shots} dobleces juntos",
    "reading.corner": "De {hooked} a la esquina exterior de esta curva, con una regla sobre el otro tramo",
    "reading.saddle_legs": "Los tramos antes y después de la silla",
    "reading.rise": "Regla sobre el tramo de antes, hasta el mismo lado del de después",
    "reading.height": "Regla por debajo del tramo antes de la silla: hasta la parte de abajo de su cima",
    "reading.kick": "Regla a lo largo del tramo sin quiebre: distancia al otro tramo del 90, de un mismo "
    "lado al mismo lado",
    "reading.outer_legs": "Los tramos antes y después de la bayoneta",
    "reads.parallel": "paralelos",
    "reads.in_line": "en una línea",
    # How the dial's angle is found.
    "found.handle": "El mango queda entonces derecho hacia arriba.",
    "found.between_lines": "La zapata no tiene línea para eso: {beside}, y compruebe con el medidor de ángulos.",
    "beside.hair_past": "apenas pasado de {line}",
    "beside.hair_short": "apenas antes de {line}",
    "beside.between": "entre {one} y {other}",
    "beside.under": "menos de {line}",
    "beside.past": "más de {line}",
    # Which mark is proposed.
    "use.none": "Ninguna marca de esta curva cae en el tubo; empieza muy cerca del extremo.",
    "use.arrow_a": "Flecha con el gancho hacia A: todas las marcas se miden desde A, y el gancho mira hacia allá.",
    "use.arrow_b": "Gancho hacia B: con el gancho hacia A la marca quedaría fuera del tubo.",
    "use.star_a": "En la estrella, porque la marca de la flecha quedaría fuera del tubo.",
    "use.star_b": "En la estrella con el gancho hacia B, porque ninguna otra marca cae en el tubo.",
    "use.notch": "La muesca es el medio de una curva de 45: va en el centro de la silla.",
    "use.no_notch": "La muesca no: solo es el medio de una curva de 45, y esta curva central no es de 45.",
    "use.outer": "Curva exterior de una silla: el gancho mira al centro.",
    # Cautions.
    "caution.machine": "Manos fuera de la zapata mientras se mueve, y lejos de los dos extremos.",
    "caution.air": "Al aire: el mango en el piso y sujeto ahí; empuje el tubo hacia abajo, cerca de la zapata.",
    "caution.hold": "Empuje entre la zapata y la curva ya hecha, o en esa curva: más allá la abriría.",
    "caution.heavy": "Pesado al aire, y fácil de perder el pie: que alguien ayude, o dóblelo en una prensa, sobre un "
    "borde o en una máquina.",
    "caution.heavy_with_helper": "Pesado al aire: su ayudante empuja con usted, los dos junto al tubo y bien parados.",
    "caution.edge": "Sobre un borde: párese firme detrás; la parte doblada cuelga libre, y nadie debajo de ella.",
    "caution.knuckles": "La parte doblada queda junto al mango: cuide los nudillos y tome el mango por la punta.",
    "caution.foot": "Pie firme en el talón hasta el final: una zapata que resbala avienta el mango, y con poco pie el "
    "tubo se arruga o se quiebra por dentro.",
    "caution.comes_down": "El extremo {end} baja {way}: que nadie esté en su camino. Mueva el tubo cerca de la zapata; "
    "movido de lejos se arquea.",
    "caution.swings_up": "El extremo {end} sube {way}: que nadie esté en su camino. Mueva el tubo cerca de la zapata; "
    "movido de lejos se arquea.",
    "caution.eggs": "Tan cerca del extremo el tubo se ovala fácil: doble despacio, con la zapata llena sobre el tubo.",
    "caution.back_line": "Raye una línea por el lomo de esta bayoneta de caja: la curva de 90 que sigue se gira por "
    "esa línea.",
    "caution.finished_offset": "Mueva el extremo {end} por el tramo recto antes de su bayoneta terminada; jalado de la "
    "punta se abre.",
    "caution.begin_in_air": "O empiece al aire hasta {degrees}°, voltee el tubo y termine en el piso: para entonces ya "
    "libra.",
    # The cut.
    "cut.square": "Corte {length}, a escuadra. Escarie los dos extremos.",
    "cut.spare": "Corte {cut}: {length}{spares}. Escarie el extremo {end}.",
    "cut.spare_both": "Corte {cut}: {length}{spares}. Escarie los dos extremos cuando estén cortados a medida.",
    "cut.to_spare": " y {spare} de sobra en el extremo {end}",
    "cut.comes_off": "según el plan se quitan {length}",
    "cut.along": "según el plan {length} a lo largo del tubo",
    "cut.threads": "Haga rosca en cada extremo cortado y luego escaríelo; el que trae rosca de fábrica se queda como "
    "está.",
    "cut.too_long": "Ningún tramo es más largo que {longest}: deje menos de sobra, o mueva un cople.",
    "cut.other_shoe": "Para {shoe}, no para {own} de la corrida: {length} entre sus extremos, no {before}.",
    "cut.other_shoe_same": "Para {shoe}, no para {own} de la corrida: {length} entre sus extremos, igual en las dos.",
    "trim.box": "Después de doblar, preséntelo en seco: marque el extremo {end} donde llega el tope del conector, "
    "corte {shoulder} antes de la marca ({by_plan}), y escaríelo.",
    "trim": "Después de doblar, preséntelo en seco, corte el extremo {end} a medida ({by_plan}), y escaríelo.",
    # A lever tool's stamp.
    "stamp.counted": "El extremo {end} guarda {reach} rectos hasta que la herramienta de palanca lo estampe; el corte "
    "ya lo cuenta.",
    "stamp.pull": "Cuando todo lo demás esté doblado y el extremo {end} cortado a medida: métalo en la herramienta de "
    "palanca con {straight} más allá de la bayoneta. {way} Un solo jalón.",
    "stamp.check": "Regla sobre el tramo: el extremo {end} queda a {rise} de ella, y paralelo.",
    "stamp.any_way": "Girado como sea.",
    "stamp.way": "Con el tubo más allá de la curva {bend} a las 12 del reloj, visto desde el extremo {end}, la punta "
    "se mueve hacia las {clock}.",
    # Fitting.
    "fit.and": " y ",
    "fit.reamed": "Los dos extremos escariados, ningún corte con filo.",
    "fit.seated": "Cada extremo visto dentro de su accesorio, a no más de {shoulder} del tope.",
    "fit.rings": "{boxes}: quitados solo los anillos hasta {size}; uno de más pide una arandela reductora.",
    "fit.locknuts": "{boxes}: contratuerca bien apretada, que el tubo puede ser el camino a tierra.",
    "fit.bushing": "Una boquilla en el extremo abierto.",
    "fit.threads": "Coples metidos hasta el último hilo.",
    "fit.joints": "Coples metidos hasta el fondo y apretados.",
    "fit.screws": "Los prisioneros hacia el frente, donde los alcanza un desarmador.",
    "fit.straps": "Abrazaderas a {places} sobre él: a menos de {near} de cada caja, y luego cada {every}.",
    "fit.plumb": "A plomo y a nivel.",
    "fit.pencil": "Marcas de lápiz borradas.",
    # Correcting.
    "correct.go_on": "El tubo todavía queda; siga como está planeado.",
    "correct.then_go_on": "Luego siga como está planeado.",
    "correct.near_enough": "Más cerca no llegan las manos ni el medidor de ángulos; lo que falta al final se "
    "acomoda en las abrazaderas.",
    "correct.rest": "Doble lo demás con las marcas y los ángulos nuevos.",
    "correct.then_rest": "Luego doble lo demás con las marcas y los ángulos nuevos.",
    "correct.cut": "Mueva el corte del extremo {end}.",
    "correct.then_cut": "Luego mueva el corte del extremo {end}.",
    "correct.cannot_come": "En este orden la curva {bend} ya no puede hacerse entonces: {why}. Pruebe otro orden, o el "
    "gancho hacia el otro extremo.",
    "correct.close": "De vuelta en la zapata, con la marca en la misma referencia: {bends}.",
    "correct.close_one": "cierre la curva {bend} {by}°",
    "correct.and": " y ",
    "correct.open": "Quítele {by}° a la curva {bend}: un tramo bajo el pie, empuje el otro para abrirla de a poco, y "
    "mida.",
    "correct.open_in_vise": "Quítele {by}° a la curva {bend} en una prensa, con un tramo de tubo como palanca en el "
    "otro tramo, de a poco, y pruebe cada vez.",
    "correct.spring": "El extremo B no llega del todo a su lugar: llévelo con las abrazaderas o con el conector, si lo "
    "que falta aquí es poco; si no, empiece otro.",
    "correct.open_sweep": "Quítele {by}° a la curva amplia que termina en la curva {bend}, un poco a lo largo de toda, "
    "sobre la rodilla o en una zapata ancha, y mida.",
    "correct.twist": "Tuerza la curva {bend} de vuelta {by}°, plana contra un muro o en una prensa, poco a poco.",
    "correct.scrap_dog_leg": "Deséchelo: la curva {bend} está {by}° fuera de plano, y las que faltan no lo pueden "
    "compensar.",
    "correct.scrap_over": "Deséchelo: la curva {bend} se pasó {by}° y no se puede abrir tanto.",
    "correct.scrap": "Deséchelo: ni las curvas que faltan, ni un corte, ni una corrección traen el extremo de vuelta.",
    # Why there is no sheet.
    "stick.no_piece": "esta corrida no tiene pieza {piece} que doblar",
    "stick.no_bend": "la pieza {piece} no tiene curva {bend}",
    "stick.that_shoe": "esa zapata",
    "stick.other_shoe": "con {shoe} esta corrida no se puede doblar. {why}",
    "stick.too_long": "con {shoe} la pieza {piece} mediría {length}, y un tramo mide {stick}; mueva antes su cople",
}

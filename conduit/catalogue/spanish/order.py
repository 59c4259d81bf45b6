"""The order of bending in Spanish."""

ORDER: dict[str, str | tuple[str, str]] = {
    "habit.saddle_centre": "Silla: primero el centro, después las dos de afuera.",
    "habit.stub": "La curva de 90 antes de su quiebre.",
    "habit.box_offset_last": "La bayoneta de caja del otro extremo al final, después de cortar a medida.",
    "habit.box_offset_first": "Primero la bayoneta de caja, en el extremo medido.",
    "habit.along_offset": "A lo largo del tubo dentro de una bayoneta.",
    "habit.along_side": "A lo largo del tubo dentro de un lado de la silla.",
    "habit.one_side": "Termine primero un lado de la silla.",
    "habit.finish": "Lo que se empieza se termina primero.",
    "habit.not_here": "{habit} Aquí no: {why}.",
    "habit.another": "entonces otra curva no se podría hacer, o no según su costumbre",
    "order.way.air": "Al aire: en el piso estorbaría la parte ya doblada.",
    "order.way.edge": "Sobre un borde, con la parte doblada colgando libre: en el piso estorbaría.",
    "order.bends": "{first} a {last}",
    "order.and": " y ",
    "order.no_pipe": "en su extremo no hay bastante tubo recto para la zapata",
    "order.no_room": "la zapata necesita el tubo recto donde ya está doblada la curva {bends}",
    "order.handle": "una parte doblada quedaría donde pasa el mango",
    "order.machine": "una parte doblada llegaría al suelo, o a la máquina bajo el tubo",
    "order.floor_and_air": "en el piso estorbaría una parte doblada, y al aire el tubo llegaría al suelo",
    "order.not_even_first": "La curva {bend} no se puede hacer ni de primera: {why}.",
    "order.none": "Venga lo que venga primero, a una curva posterior le falta tubo recto para la zapata, o lugar sobre "
    "el piso y el mango.",
    "order.not_here": "La curva {bend} no puede venir aquí: {why}.",
    "order.not_found": "No se halló un orden para sus {bends} curvas, hasta donde se buscó.",
}

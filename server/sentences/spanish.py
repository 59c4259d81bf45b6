"""The same in Spanish: what the bench shows."""

SPANISH: dict[str, str | tuple[str, str]] = {
    "bench.bends_are_made_on_it_on": "ya tiene curvas hechas; con otra zapata quedarían en otro lugar",
    "bench.bends_are_made_on_it_it": "ya tiene curvas hechas; está cortado",
    "bench.it_is_cut_to_on_that": "está cortado a {cut}; con esa zapata hacen falta {wanted} de extremo a extremo",
    "bench.bend_is_entered_already_by": "la curva {bend} ya está anotada: {angle}° por {by}",
    "bench.bend_tape": "curva {bend}, cinta “{tape}”: {why}",
    "bench.there_is_no_shoe_for_it": "no hay zapata para ella",
    "bench.bend_is_not_entered_yet": "la curva {bend} todavía no está anotada",
    "bench.the_log_does_not_propose_that": "El registro ya no propone eso.",
    "bench.shown_for_the_runs_shoe": "{why} Se muestra con la zapata de la corrida.",
    "bench.the_run_was_changed_after_this": "La corrida se cambió después de empezar este tramo: ya no tiene esa "
    "pieza.",
    "bench.the_run_or_its_shoe_was": "La corrida o su zapata se cambió después de empezar este tramo. Se sigue "
    "mostrando como se empezó.",
    "bench.made_with_other_figures_than_has": "Hecho con otros datos que los que {own} tiene ahora: su deducción y su "
    "ganancia cambiaron desde entonces.",
    "bench.is_not_calibrated_bend_a_90": "{own} no está calibrada: doble primero una curva de 90 en un retazo y mida "
    "los dos tramos.",
    "bench.typical_figures_of_a_shoe_of": "Datos típicos de una zapata de esta medida, sin calibrar: doble primero "
    "una curva de 90 en un retazo y mida los dos tramos.",
    "bench.figures_written_into_this_run_by": "Datos escritos a mano en esta corrida, no los de una zapata de su "
    "lista.",
    "bench.the_run_has_no_piece_any": "La corrida ya no tiene pieza {piece}. Planee de nuevo; no se cortó nada.",
    "cutting.no_room_on_bar": "{piece} se cortaría a {length}; {bar} tiene {room} para ella. Planee de nuevo en "
    "Existencias, o déjelo como estaba.",
    "cutting.piece_of_run": "{run}, pieza {piece}",
    "cutting.the_run": "La corrida",
    "http.400": "El servidor no pudo leer esa petición.",
    "http.404": "Aquí no hay tal cosa.",
    "http.429": "Eso se pidió muy seguido. Espere un momento y vuelva a intentar.",
    "http.503": "El servidor no puede hacerlo ahora mismo. Vuelve a intentar solo; lo que hizo se queda aquí.",
    "http.500": "Algo falló en el servidor; su registro lo tiene como {number}. No se hizo nada. Vuelva a intentar.",
    "gate.gone": "La base de datos no contesta ahora mismo. Lo que hizo se guarda aquí y se envía cuando vuelva.",
    "gate.busy": "El servidor está muy ocupado. Lo que hizo se guarda aquí; vuelva a intentar en un momento.",
    "gate.full": "El disco del servidor está lleno. No se hizo nada, y lo que escribió se queda aquí. Avise a quien "
    "lleva el servidor.",
}

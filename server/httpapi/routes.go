package httpapi

import "github.com/gin-gonic/gin"

// routes is every address of the API, as api/openapi.yaml describes it.
func (s *server) routes(r *gin.RouterGroup) {
	// calculations, without a kitchen
	r.GET("/larder", s.getLarder)
	r.POST("/bench", s.bench)
	r.POST("/bench/what-if", s.whatIf)
	r.POST("/bench/cost", s.benchCost)
	r.POST("/bench/ready-by", s.readyBy)
	r.POST("/bench/alternatives", s.benchAlternatives)
	r.POST("/balance", s.balance)
	r.POST("/bake", s.simulateBake)
	r.POST("/bake/plan", s.planBake)
	r.POST("/day/plan", s.planDay)
	r.POST("/cost", s.costOf)
	r.POST("/shopping", s.shoppingList)
	r.POST("/label", s.labelOf)
	r.POST("/balance/alternatives", s.balanceAlternatives)
	r.POST("/balance/pairings", s.pairings)
	r.POST("/start", s.start)
	r.POST("/other-dish", s.otherDish)
	r.POST("/diets", s.proposeDiet)
	r.POST("/swap", s.swapIngredient)
	r.POST("/fruit-test", s.fruitTest)
	r.POST("/ovens/measure", s.measureOven)
	// what bakers write
	r.POST("/amount", s.readAmount)
	r.POST("/measure", s.measure)
	r.POST("/recipe", s.judgeRecipe)
	r.POST("/import", s.importRecipe)
	r.POST("/export", s.exportCard)
	r.POST("/print.pdf", s.printSheet)
	// kitchens
	r.GET("/kitchens", s.listKitchens)
	r.POST("/kitchens", s.addKitchen)
	r.POST("/kitchens/demo", s.loadDemo)
	r.POST("/kitchens/restore", s.restoreKitchen)
	r.GET("/work/:work", s.howFar)
	r.DELETE("/work/:work", s.stopWork)

	s.kitchenRoutes(r.Group("/kitchens/:kitchen"))
}

// kitchenRoutes are those of one kitchen.
func (s *server) kitchenRoutes(k *gin.RouterGroup) {
	k.PUT("", s.renameKitchen)
	k.DELETE("", s.removeKitchen)
	k.GET("/backup.zip", s.backUp)
	k.PUT("/settings", s.setSettings)
	// the shelf
	k.GET("/dishes", s.listDishes)
	k.POST("/dishes", s.addDish)
	k.PUT("/dishes/:dish", s.changeDish)
	k.DELETE("/dishes/:dish", s.removeDish)
	k.GET("/ovens", s.listOvens)
	k.PUT("/ovens/:oven", s.setOven)
	k.DELETE("/ovens/:oven", s.removeOven)
	k.GET("/own", s.listOwn)
	k.PUT("/own/:kind/:key", s.setOwn)
	k.DELETE("/own/:kind/:key", s.dropOwn)
	// cards
	k.GET("/cards", s.listCards)
	k.POST("/cards", s.addCard)
	k.GET("/cards/:card", s.getCard)
	k.PUT("/cards/:card", s.changeCard)
	k.POST("/cards/:card/versions", s.addVersion)
	k.GET("/cards/:card/versions/:version/beside/:other", s.compareVersions)
	// the oven watch
	k.GET("/watch", s.listWatch)
	k.POST("/watch", s.startWatch)
	k.POST("/watch/shared", s.sharedOvens)
	k.GET("/watch/live", s.watchEvents)
	k.DELETE("/watch/:dessert", s.endWatch)
	k.POST("/watch/:dessert", s.reopenWatch)
	k.POST("/watch/:dessert/calls/:call", s.answerCall)
	k.POST("/watch/:dessert/rescue", s.rescue)
	k.PUT("/watch/:dessert/stages", s.replan)
	k.PUT("/watch/:dessert/probe", s.setProbe)
	k.PUT("/watch/:dessert/simulation", s.simulate)
	k.GET("/scale", s.readScale)
	k.PUT("/scale", s.setScale)
	k.GET("/scale/live", s.scaleEvents)
	// the log
	k.GET("/bakes", s.listBakes)
	k.POST("/bakes", s.addBake)
	k.GET("/bakes.csv", s.exportLogCSV)
	k.GET("/bakes.json", s.exportLogJSON)
	k.GET("/bakes/:bake", s.getBake)
	k.PUT("/bakes/:bake/outcome", s.correctBake)
	k.GET("/bakes/:bake/why", s.explainBake)
	k.GET("/bakes/:bake/beside/:other", s.compareBakes)
	k.GET("/pictures/:picture", s.getPicture)
	k.POST("/pictures/:picture", s.addPicture)
}

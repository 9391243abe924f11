package learn

// Posterior is what a log has taught, with which any other bake is predicted: normal. The zero value is the priors.
type Posterior struct {
	Parameters []PosteriorParameter `json:"parameters"`
	Covariance [][]float64          `json:"covariance"` // of the parameters, in their order: rows up to the diagonal
	Bakes      int                  `json:"bakes"`      // that it is from
}

// PosteriorParameter is one thing that can be learnt, as the log has it: C, or the natural logarithm of a factor.
type PosteriorParameter struct {
	ParameterName
	Mean float64 `json:"mean"`
}

// Posterior of the parameters of a log.
func (l *Result) Posterior() Posterior {
	out := Posterior{Bakes: l.Score.Bakes, Parameters: []PosteriorParameter{}, Covariance: [][]float64{}}
	for i, p := range l.learned.all {
		out.Parameters = append(out.Parameters, PosteriorParameter{p.ParameterName, l.learned.mean[i]})
		out.Covariance = append(out.Covariance, l.learned.cov.row(i)[:i+1])
	}
	return out
}

// belief of the parameters of an estimate: where the log knows nothing of one, its prior.
func (e *estimate) beliefBy(p Posterior) posterior {
	n := len(e.all)
	out := posterior{make([]float64, n), newMatrix(n)}
	known := map[ParameterName]int{}
	for i, x := range p.Parameters {
		if i < len(p.Covariance) && len(p.Covariance[i]) > i {
			known[x.ParameterName] = i
		}
	}
	for i, a := range e.all {
		k, ok := known[a.ParameterName]
		if !ok {
			out.mean[i] = a.mean
			out.cov.set(i, i, a.sd*a.sd)
			continue
		}
		out.mean[i] = p.Parameters[k].Mean
		for j, b := range e.all[:i+1] {
			if m, ok := known[b.ParameterName]; ok {
				x := p.Covariance[max(k, m)][min(k, m)]
				out.cov.set(i, j, x)
				out.cov.set(j, i, x)
			}
		}
	}
	return out
}

package learn

// equations of one bake: gradient and curvature of its misfit by the parameters that it uses, then by its deviations.
type equations struct {
	n     int // uses
	slope []float64
	curve matrix
}

// observe adds one observation: its slope and curvature, and how it changes with each unknown.
func (q *equations) observe(slope, curve float64, by []float64) {
	for i, x := range by {
		if x == 0 {
			continue
		}
		q.slope[i] += slope * x
		for j, y := range by {
			q.curve.add(i, j, curve*x*y)
		}
	}
}

// equations at a point: of all that was reported, or of the tests alone.
func (o *observed) equations(mean []float64, own [deviations]float64, testsAlone bool) equations {
	size := len(o.uses) + deviations
	q := equations{len(o.uses), make([]float64, size), newMatrix(size)}
	for k, u := range own {
		q.slope[q.n+k] += u / o.variance[k]
		q.curve.add(q.n+k, q.n+k, 1/o.variance[k])
	}
	by := make([]float64, size)
	if o.teaches() && !testsAlone {
		shares := o.shares(mean)
		y, slopes := o.slopes(o.drivers(mean, own))
		for i := range o.answers {
			for j, u := range o.uses {
				by[j] = slopes[i][u.driver] * shares[j]
			}
			for k, driver := range ownDrivers {
				by[q.n+k] = slopes[i][driver]
			}
			slope, curve := o.answers[i].fall(y[i])
			q.observe(slope, curve, by)
		}
	}
	for _, t := range o.tests {
		clear(by)
		by[q.n+1] = 1
		for j, u := range o.uses {
			if u.driver == byRelease && u.fruit == t.fruit {
				by[j] = 1
			}
		}
		slope, curve := testAnswer(t).fall(o.testOf(t, mean, own))
		q.observe(slope, curve, by)
	}
	return q
}

// reduced is what is left when the bake's deviations are eliminated: by its Schur complement.
type reduced struct {
	slope []float64
	curve matrix
	own   matrix // Cholesky factor of the deviations' curvature
}

func (q equations) reduce() reduced {
	r := reduced{make([]float64, q.n), newMatrix(q.n), matrix{}}
	u := newMatrix(deviations)
	for i := range deviations {
		for j := range deviations {
			u.set(i, j, q.curve.at(q.n+i, q.n+j))
		}
	}
	r.own, _ = u.cholesky() // its prior is in it: it is positive
	rest := r.own.solve(q.slope[q.n:])
	for i := range q.n {
		cross := q.curve.row(i)[q.n:]
		r.slope[i] = q.slope[i] - dot(cross, rest)
		back := r.own.solve(cross)
		for j := range q.n {
			r.curve.set(i, j, q.curve.at(i, j)-dot(back, q.curve.row(j)[q.n:]))
		}
	}
	return r
}

// gather adds a bake's equations to those of the parameters.
func (o *observed) gather(r reduced, slope []float64, curve matrix, sign float64) {
	for i, a := range o.uses {
		slope[a.param] += sign * r.slope[i]
		for j, b := range o.uses {
			curve.add(a.param, b.param, sign*r.curve.at(i, j))
		}
	}
}
